import { useTranslation } from 'react-i18next'
import type { LadderChart } from '../../wire/types.gen'

/** In what order all put things, best first, and how far they agree. */
export function Ladder({ chart, answered }: { chart: LadderChart; answered: number }) {
  const { t, i18n } = useTranslation()
  const most = Math.max(1, ...chart.rungs.map((r) => r.points))
  const say = (n: number) => new Intl.NumberFormat(i18n.language, { maximumFractionDigits: 1 }).format(n)
  return (
    <div className="flex flex-col gap-[0.5em]">
      <ol className="flex flex-col gap-[0.45em]">
        {chart.rungs.map((rung, i) => (
          <li
            key={rung.id}
            className="relative flex items-center gap-[0.6em] overflow-hidden rounded-[0.5em] border-2 border-edge bg-paper px-[0.7em] py-[0.4em]"
          >
            <span
              aria-hidden="true"
              className={`absolute inset-y-0 start-0 ${rung.place === i + 1 ? 'bg-fern-soft' : 'bg-mist'}`}
              style={{ width: `${(100 * rung.points) / most}%` }}
            />
            <span dir="auto" className="relative min-w-0 grow break-words">
              {rung.text}
            </span>
            {rung.place ? (
              <span className="relative text-[0.85em] text-fern-deep">{t('poll.rightPlace', { n: rung.place })}</span>
            ) : null}
            {answered > 0 && (
              <span className="relative text-[0.85em] text-slate">{t('poll.meanPlace', { n: say(rung.mean) })}</span>
            )}
            <span className="relative text-[0.85em] font-semibold tabular-nums">
              {t('poll.points', { count: rung.points })}
            </span>
          </li>
        ))}
      </ol>
      {chart.w !== undefined && (
        <p className="text-[0.85em] text-slate">
          {t(chart.w >= 0.7 ? 'poll.agreeMuch' : chart.w >= 0.3 ? 'poll.agreeSome' : 'poll.agreeLittle', {
            w: new Intl.NumberFormat(i18n.language, { maximumFractionDigits: 2 }).format(chart.w),
          })}
        </p>
      )}
    </div>
  )
}
