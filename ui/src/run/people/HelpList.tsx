import { Hand } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { useNow } from '../../kit/hooks/useNow'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { ago } from '../../words/words'

/** Who needs help, the longest waiting first, and a word back; nothing while nobody does. */
export function HelpList({ onLook }: { onLook: (student: string) => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const help = useLessonState((s) => s.said.all?.help)
  const people = useLessonState((s) => s.people)
  const now = useNow(5000)
  const removed = useLessonState((s) => s.staff?.state.removed)
  const calls = (help ?? []).filter((c) => people.has(c.student) && !removed?.includes(c.student))
  return (
    <div role="status" data-part="help" className="empty:hidden">
      {calls.length > 0 && (
        <section aria-labelledby="help" className="rounded-xl border border-dusk bg-dusk-soft p-2">
          <h3 id="help" className="mb-1 flex items-center gap-1.5 text-[15px] font-semibold text-dusk">
            <Hand size={16} aria-hidden="true" />
            {t('voices.help', { count: calls.length })}
          </h3>
          <ul className="flex max-h-52 flex-col gap-1 overflow-auto">
            {calls.map((call) => {
              const name = people.get(call.student)?.name ?? ''
              return (
                <li key={call.student} className="flex items-center gap-1.5">
                  <button
                    type="button"
                    className="min-w-0 grow truncate text-start font-semibold underline-offset-4 hover:underline"
                    onClick={() => onLook(call.student)}
                  >
                    {name}
                    <span className="block text-[13px] font-normal text-slate">
                      {call.coming ? t('voices.toldComing') : (ago(call.at, now) ?? t('run.lastNow'))}
                    </span>
                  </button>
                  {call.coming ? (
                    <Button
                      aria-label={t('voices.beenWho', { name })}
                      onClick={() => void lesson.say({ kind: 'come', come: { student: call.student, been: true } })}
                    >
                      {t('voices.been')}
                    </Button>
                  ) : (
                    <Button
                      look="main"
                      aria-label={t('voices.comeWho', { name })}
                      onClick={() => void lesson.say({ kind: 'come', come: { student: call.student } })}
                    >
                      {t('voices.come')}
                    </Button>
                  )}
                </li>
              )
            })}
          </ul>
        </section>
      )}
    </div>
  )
}
