import { useTranslation } from 'react-i18next'
import type { Left } from '../wire/hooks/useClock'

const RIDGE = 'M0 30 14 14 24 22 40 4 52 16 64 9 80 24 92 15 100 30Z'

/** Minutes and seconds, as a clock shows them. */
export const clockOf = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`

/** The time that is left: in digits, and as light that goes from a ridge. */
export function TimerFace({ left, className = '' }: { left: Left; className?: string }) {
  const { t } = useTranslation()
  const share = Math.max(0, Math.min(1, left.share)) * 100
  return (
    <span
      role="timer"
      aria-label={left.over ? t('timer.over') : t('timer.left', { time: clockOf(left.seconds) })}
      className={`inline-flex items-center gap-[0.35em] font-display leading-none font-semibold tabular-nums ${left.over ? 'text-glow-deep' : ''} ${className}`}
      data-part="timer"
    >
      <svg aria-hidden="true" viewBox="0 0 100 30" className="h-[0.62em] w-[2.05em]">
        <path d={RIDGE} className="fill-ridge" />
        <clipPath id="lit">
          <rect width={share} height="30" />
        </clipPath>
        <path d={RIDGE} className="fill-glow" clipPath="url(#lit)" />
      </svg>
      <span aria-hidden="true">{clockOf(left.seconds)}</span>
    </span>
  )
}
