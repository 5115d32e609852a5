import { Check, X } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Knock } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Those who have knocked at the closed door, to let them in one by one or all; nothing while nobody waits. */
export function Door({ waiting }: { waiting: Knock[] }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const answer = (knocks: Knock[], yes: boolean) =>
    void lesson.give({ kind: 'admit', admit: { knocks: knocks.map((k) => k.id), yes } })
  return (
    <div role="status" data-part="door" className="empty:hidden">
      {waiting.length > 0 && (
        <section aria-labelledby="at-door" className="rounded-xl border border-glow bg-glow-soft p-2">
          <div className="mb-1 flex items-center gap-2">
            <h3 id="at-door" className="grow text-[15px] font-semibold text-glow-deep">
              {t('door.waiting', { count: waiting.length })}
            </h3>
            {waiting.length > 1 && (
              <>
                <Button onClick={() => answer(waiting, true)}>{t('door.letAllIn')}</Button>
                <button
                  type="button"
                  aria-label={t('door.sendAllAway')}
                  title={t('door.sendAllAway')}
                  onClick={() => answer(waiting, false)}
                  className="grid size-9 shrink-0 place-items-center rounded-lg text-slate hover:bg-paper"
                >
                  <X size={18} aria-hidden="true" />
                </button>
              </>
            )}
          </div>
          <ul className="flex max-h-44 flex-col gap-1 overflow-auto">
            {waiting.map((knock) => (
              <li key={knock.id} className="flex items-center gap-1.5">
                <span className="min-w-0 grow break-words">
                  <b className="font-semibold">{knock.name}</b>
                  {knock.doubt && (
                    <span className="block text-[13px] leading-tight text-slate">{t(`doubt.${knock.doubt}`)}</span>
                  )}
                </span>
                <button
                  type="button"
                  aria-label={t('door.letInWho', knock)}
                  title={t('door.letIn')}
                  onClick={() => answer([knock], true)}
                  className="grid size-9 shrink-0 place-items-center rounded-lg border border-edge bg-paper text-fern hover:bg-mist"
                >
                  <Check size={18} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={t('door.sendAway', knock)}
                  title={t('door.sendAway', knock)}
                  onClick={() => answer([knock], false)}
                  className="grid size-9 shrink-0 place-items-center rounded-lg text-slate hover:bg-paper"
                >
                  <X size={18} aria-hidden="true" />
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}
