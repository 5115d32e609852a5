import { useTranslation } from 'react-i18next'
import { VerdictSign } from '../../polls/charts/VerdictSign'
import type { OwnVerdict } from '../../wire/types.gen'

/** What a student learns of an answer of their own, before what is right is shown to all. */
export function Told({ told }: { told: OwnVerdict }) {
  const { t } = useTranslation()
  const { verdict, reason, right, why, left } = told
  if (!verdict && !right) return null
  const looks = { right: 'bg-fern-soft', partly: 'bg-amber-soft', wrong: 'bg-rose-soft', '': 'bg-mist' }
  return (
    <div role="status" className={`mt-[0.7em] rounded-[0.4em] px-[0.7em] py-[0.5em] ${looks[verdict ?? '']}`}>
      {verdict && (
        <p className="flex items-center gap-[0.4em] font-semibold">
          <span aria-hidden="true">
            <VerdictSign verdict={verdict} />
          </span>
          {t(`set.told_${verdict}`)} {reason && t(`poll.reason_${reason}`)}
        </p>
      )}
      {verdict !== 'right' && !right && left !== undefined && left > 0 && <p>{t('set.triesLeft', { count: left })}</p>}
      {verdict !== 'right' && right && (
        <p className="font-semibold text-fern-deep">
          {t('poll.rightIs')} <span dir="auto">{right}</span>
        </p>
      )}
      {why && <p dir="auto">{why}</p>}
    </div>
  )
}
