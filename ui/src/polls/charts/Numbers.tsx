import { useTranslation } from 'react-i18next'
import type { NumbersChart } from '../../wire/types.gen'

const [WIDE, HIGH, FOOT, DOT] = [640, 180, 30, 5]

/** Numbers on a line: a dot for each while they are few, else bars; the band of right ones behind. */
export function Numbers({ chart }: { chart: NumbersChart }) {
  const { t, i18n } = useTranslation()
  const { bins, values, band, median, middle, unit } = chart
  if (bins.length === 0) return <p className="text-slate">{t('poll.noNumbers')}</p>
  const first = Math.min(bins[0]!.low, band?.low ?? Infinity)
  const last = Math.max(bins.at(-1)!.high, band?.high ?? -Infinity)
  const spare = (last - first || Math.abs(first) || 1) * 0.04
  const [from, to] = [first - spare, last + spare]
  const x = (value: number) => ((value - from) / (to - from)) * WIDE
  const most = Math.max(...bins.map((b) => b.count))
  const rise = (HIGH - FOOT - 10) / most
  const say = (value: number) => new Intl.NumberFormat(i18n.language, { maximumSignificantDigits: 5 }).format(value)
  // Each dot stands where its number is; those that would touch stand on each other.
  const piles = new Map<number, { at: number; count: number }>()
  const stacked = values.map((value) => {
    const key = Math.floor(x(value) / (2 * DOT + 1))
    const pile = piles.get(key) ?? { at: x(value), count: 0 }
    piles.set(key, { ...pile, count: pile.count + 1 })
    return { at: pile.at, high: pile.count }
  })
  const dots = Math.max(...[...piles.values()].map((p) => p.count)) <= 12
  return (
    <figure className="flex flex-col gap-[0.4em]" dir="ltr">
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={t('poll.numbersAll', { list: values.map(say).join('; ') })}
      >
        {band && (
          <rect
            x={Math.min(x(band.low), x((band.low + band.high) / 2) - 2)}
            width={Math.max(4, x(band.high) - x(band.low))}
            y={0}
            height={HIGH - FOOT}
            className="fill-fern-soft stroke-fern"
            strokeWidth={1}
          />
        )}
        {dots
          ? stacked.map(({ at, high }, i) => (
              <circle key={i} cx={at} cy={HIGH - FOOT - DOT - 3 - high * (2 * DOT + 1)} r={DOT} className="fill-dusk" />
            ))
          : bins.map((b) => (
              <rect
                key={b.low}
                x={x(b.low) + 1}
                width={Math.max(2, x(b.high) - x(b.low) - 2)}
                y={HIGH - FOOT - b.count * rise}
                height={b.count * rise}
                className="fill-dusk"
              />
            ))}
        <line x1={0} x2={WIDE} y1={HIGH - FOOT} y2={HIGH - FOOT} className="stroke-night" strokeWidth={2} />
        {middle && (
          <line
            x1={x(middle.low)}
            x2={x(middle.high)}
            y1={HIGH - FOOT}
            y2={HIGH - FOOT}
            className="stroke-glow"
            strokeWidth={6}
          />
        )}
        <line
          x1={x(median)}
          x2={x(median)}
          y1={HIGH - FOOT - 8}
          y2={HIGH - FOOT + 8}
          className="stroke-night"
          strokeWidth={3}
        />
        {[bins[0]!.low, median, bins.at(-1)!.high].map((value, i) => (
          <text
            key={i}
            x={x(value)}
            y={HIGH - 8}
            textAnchor={i === 0 ? 'start' : i === 1 ? 'middle' : 'end'}
            className={`fill-night text-[17px] ${i === 1 ? 'font-semibold' : ''}`}
          >
            {i === 1 || Math.abs(x(value) - x(median)) > 70 ? say(value) : ''}
          </text>
        ))}
      </svg>
      <figcaption dir="auto" className="text-[0.85em] text-slate">
        {t('poll.numbersSay', { median: say(median), unit: unit ?? '' })}
        {middle &&
          middle.low !== middle.high &&
          ` ${t('poll.numbersMiddle', { low: say(middle.low), high: say(middle.high) })}`}
        {band && ` ${t('poll.numbersBand')}`}
      </figcaption>
    </figure>
  )
}
