import { useQuery } from '@tanstack/react-query'
import { Combine } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { Dialog } from '../../kit/windows/Dialog'
import { call, codeOf } from '../../wire/http'
import type { Alike, Frame } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { clock } from '../../words/words'
import { asColumns, offered, ways, type By, type Group } from './groups'
import { Groups } from './Groups'

/** Which notes say the same: offered as groups, and as columns once the teacher says so. */
export function AlikeButton({ frame, sheet }: { frame: Frame; sheet: string }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <Combine size={17} aria-hidden="true" />
        {t('alike.button')}
      </Button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('alike.title')} text={t('alike.text')}>
        <Sorting frame={frame} sheet={sheet} onDone={() => setOpen(false)} />
      </Dialog>
    </>
  )
}

function Sorting({ frame, sheet, onDone }: { frame: Frame; sheet: string; onDone: () => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const reply = useQuery({
    queryKey: ['alike', lesson.session, frame.id],
    queryFn: () => call<Alike>('GET', `/sessions/${lesson.session}/alike?frame=${frame.id}`),
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  const [by, setBy] = useState<By>('alike')
  const [changed, change] = useState<Group[] | null>(null)
  const alike = reply.data
  if (!alike) return reply.isError ? <Refusal code={codeOf(reply.error)} /> : <p role="status">{t('loading')}</p>
  const { notes } = alike
  const nameOf = (key: string) => {
    if (by === 'tint') return t(`tints.${key}`)
    const [from = 0, to = 0] = key.split('-').map(Number)
    if (by === 'time') return clock(from) === clock(to) ? clock(from) : `${clock(from)} – ${clock(to)}`
    if (by === 'agreed')
      return to === 0 ? t('alike.nobody') : t(from === to ? 'alike.agreeAll' : 'alike.agree', { from, to })
    return people.get(key)?.name ?? ''
  }
  const groups = changed ?? offered(alike, by, nameOf)
  if (notes.length < 2) return <p>{t('alike.few')}</p>
  async function lay() {
    const columns = asColumns(groups, notes, t('alike.rest')).map((c) => ({ ...c, id: uuidv7() }))
    const layout = { columns: columns.map(({ id, title }) => ({ id, title })) }
    // The columns first: into a column that is not there nothing can be put.
    if (!(await lesson.give({ kind: 'lay', lay: { frame: frame.id, layout } }))) return
    const steps = columns.flatMap((c) => c.notes.map((mark) => ({ kind: 'set', set: { mark, column: c.id } }) as const))
    lesson.do(sheet, { kind: 'many', many: { steps } })
    onDone()
  }
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          {t('alike.by')}
          <select
            className="rounded-lg border border-edge bg-paper px-2 py-1.5"
            value={by}
            onChange={(e) => {
              setBy(e.target.value as By)
              change(null)
            }}
          >
            {ways.map((b) => (
              <option key={b} value={b}>
                {t(`alike.by_${b}`)}
              </option>
            ))}
          </select>
        </label>
        <span className="grow" />
        {changed && <Button onClick={() => change(null)}>{t('alike.again')}</Button>}
        <Button look="main" onClick={() => void lay()}>
          {t('alike.lay')}
        </Button>
      </div>
      {groups.length === 0 && <p className="text-slate">{t('alike.none')}</p>}
      <Groups groups={groups} notes={notes} onChange={change} />
      <p className="text-sm text-slate">{t('alike.undo')}</p>
    </div>
  )
}
