import { useQuery } from '@tanstack/react-query'
import { Combine } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { Dialog } from '../../kit/windows/Dialog'
import { call, codeOf } from '../../wire/http'
import type { Alike } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { offered, type Group } from '../alike/groups'
import { Groups } from '../alike/Groups'

/** Which texts say the same: offered as groups, which the teacher names, joins and takes apart. */
export function SameSaid({ poll, round }: { poll: string; round: number }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button className="self-start" onClick={() => setOpen(true)}>
        <Combine size={17} aria-hidden="true" />
        {t('asking.same')}
      </Button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('asking.same')} text={t('alike.text')}>
        <Sorted poll={poll} round={round} />
      </Dialog>
    </>
  )
}

function Sorted({ poll, round }: { poll: string; round: number }) {
  const { t } = useTranslation()
  const { session } = useStaffLesson()
  const reply = useQuery({
    queryKey: ['same said', session, poll, round],
    queryFn: () => call<Alike>('GET', `/sessions/${session}/answers-alike?poll=${poll}&round=${round}`),
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  const lesson = useStaffLesson()
  const [changed, change] = useState<Group[] | null>(null)
  const [shown, setShown] = useState(false)
  const alike = reply.data
  if (!alike) return reply.isError ? <Refusal code={codeOf(reply.error)} /> : <p role="status">{t('loading')}</p>
  if (alike.notes.length < 2) return <p>{t('alike.few')}</p>
  const groups = changed ?? offered(alike, 'alike', () => '')
  /** The groups as the class sees them: a name, how many, a few of the texts. */
  const inFront = async () => {
    const said = (ids: string[]) => alike.notes.filter((n) => ids.includes(n.id)).map((n) => n.text.slice(0, 200))
    const show = groups.slice(0, 24).map((g) => ({
      name: g.name.slice(0, 200),
      count: g.notes.length,
      texts: [...new Set(said(g.notes))].slice(0, 4),
    }))
    setShown(await lesson.give({ kind: 'front', front: { kind: 'poll', poll, groups: show } }))
  }
  return (
    <div className="flex flex-col gap-3">
      {groups.length === 0 && <p className="text-slate">{t('alike.none')}</p>}
      <Groups
        groups={groups}
        notes={alike.notes}
        onChange={(to) => {
          setShown(false)
          change(to)
        }}
      />
      {groups.length > 0 && (
        <div className="flex flex-wrap items-center gap-3">
          <Button onClick={() => void inFront()}>{t('asking.sameInFront')}</Button>
          <span role="status">{shown && t('asking.sameShown')}</span>
        </div>
      )}
    </div>
  )
}
