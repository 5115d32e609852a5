import { House } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { useUntil } from '../wire/hooks/useClock'
import { useHandedIn, useLesson } from '../wire/hooks/useLesson'
import type { Homework as Home } from '../wire/types.gen'
import { whenAt } from '../words/words'
import '../words/windows'

/** Until when a student has time for homework, and handing it in. */
export default function Homework({ home }: { home: Home }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const handed = useHandedIn(home)
  const left = useUntil(home.until)
  const over = left?.over ?? false
  const hand = (into: boolean) => void lesson.say({ kind: 'hand', hand: { in: into } })
  return (
    <section
      aria-label={t('homework.title')}
      data-part="homework"
      className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-paper px-4 py-2"
    >
      <House size={20} aria-hidden="true" className="shrink-0 text-dusk" />
      <p role="status" className="min-w-48 flex-1 basis-0">
        {handed > 0 ? (
          <>
            <b>{t(handed > home.until ? 'homework.inLate' : 'homework.in', { when: whenAt(handed) })}</b>{' '}
            <span className="text-slate">
              {over ? t('homework.stays') : t('homework.until', { when: whenAt(home.until) })}
            </span>
          </>
        ) : (
          <b className={over ? 'text-rose' : undefined}>
            {t(over ? (home.closes ? 'homework.over' : 'homework.late') : 'homework.until', {
              when: whenAt(home.until),
            })}
          </b>
        )}
      </p>
      {handed > 0
        ? !over && <Button onClick={() => hand(false)}>{t('homework.back')}</Button>
        : !(over && home.closes) && (
            <Button look="main" onClick={() => hand(true)}>
              {t('homework.hand')}
            </Button>
          )}
    </section>
  )
}
