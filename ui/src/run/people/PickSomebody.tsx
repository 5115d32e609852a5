import { Dices } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Face } from '../../kit/people'
import { Dialog } from '../../kit/windows/Dialog'
import type { Front } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

type Props = { onFront: (show: Front) => void }

/** Draws one of those who were drawn least often, fairly; whoever is not to be drawn can be left out. */
export function PickSomebody({ onFront }: Props) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <Dices size={17} aria-hidden="true" />
        {t('pick.button')}
      </Button>
      <Dialog open={open} onOpenChange={setOpen} title={t('pick.title')} text={t('pick.text')}>
        <Draw
          onFront={(show) => {
            setOpen(false)
            onFront(show)
          }}
        />
      </Dialog>
    </>
  )
}

function Draw({ onFront }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const next = useLessonState((s) => s.next)
  const named = useLessonState((s) => !s.staff?.state.nameless)
  const drawn = useLessonState((s) => s.said.all?.picked)
  const [without, leaveOut] = useState<string[]>([])
  const [before] = useState(drawn?.length ?? 0)
  const last = drawn && drawn.length > before ? drawn.at(-1) : undefined
  const who = last && people.get(last.student)
  const rows = next
    .filter((r) => r.state !== 'gone' && r.state !== 'removed')
    .map((r) => ({ id: r.student, times: r.picked ?? 0, name: people.get(r.student)?.name ?? '' }))
    .sort((a, b) => a.times - b.times || a.name.localeCompare(b.name))
  return (
    <div className="flex flex-col gap-4">
      <div role="status" className="min-h-24 rounded-xl bg-dusk-soft p-4 text-center">
        {who && last ? (
          <>
            <p className="flex items-center justify-center gap-3 font-display text-2xl font-semibold break-words">
              <Face id={who.id} name={who.name} />
              {who.name}
            </p>
            <p className="mt-1 text-slate">{t('pick.odds', { count: last.of })}</p>
          </>
        ) : (
          <p className="pt-4 text-slate">{t('pick.nobodyYet')}</p>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button
          look="main"
          disabled={rows.length === 0}
          onClick={() => void lesson.say({ kind: 'pick', pick: { without } })}
        >
          {t(who ? 'pick.again' : 'pick.draw')}
        </Button>
        {who && (
          <>
            <Button onClick={() => void lesson.say({ kind: 'pick', pick: { undo: true } })}>{t('pick.undo')}</Button>
            {named && <Button onClick={() => onFront({ kind: 'words', words: who.name })}>{t('pick.front')}</Button>}
          </>
        )}
      </div>
      <fieldset>
        <legend className="mb-1 font-semibold">{t('pick.who')}</legend>
        <ul className="grid max-h-64 grid-cols-1 gap-x-4 overflow-auto sm:grid-cols-2">
          {rows.map((r) => (
            <li key={r.id}>
              <label className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="size-4 shrink-0 accent-dusk"
                  checked={!without.includes(r.id)}
                  onChange={(e) => leaveOut(e.target.checked ? without.filter((w) => w !== r.id) : [...without, r.id])}
                />
                <span className="min-w-0 grow truncate">{r.name}</span>
                <span className="text-[13px] whitespace-nowrap text-slate">{t('pick.times', { count: r.times })}</span>
              </label>
            </li>
          ))}
        </ul>
      </fieldset>
    </div>
  )
}
