import { useTranslation } from 'react-i18next'
import type { ObjectiveKnown } from '../wire/types.gen'

const percent = (x: number) => Math.round(100 * x)

/** What evidence comes to: the mean with how far it spreads, and how many pieces it is worth; never the mean alone. */
export function Known({ known, brief }: { known: ObjectiveKnown; brief?: boolean }) {
  const { t } = useTranslation()
  const [low, high] = [Math.max(0, known.mean - known.spread), Math.min(1, known.mean + known.spread)]
  const alone = known.pieces.length === 1
  const says = alone
    ? t('year.alone', { share: percent(known.mean) })
    : t('year.known', {
        mean: percent(known.mean),
        low: percent(low),
        high: percent(high),
        count: known.pieces.length,
      })
  return (
    <div className="max-w-56 min-w-24" title={says}>
      <svg
        aria-hidden="true"
        viewBox="0 0 100 10"
        preserveAspectRatio="none"
        className="block h-3.5 w-full rtl:-scale-x-100"
      >
        <rect y="3" width="100" height="4" rx="2" className="fill-mist" />
        <rect x={100 * low} y="3" width={Math.max(1, 100 * (high - low))} height="4" rx="2" className="fill-ridge" />
        <rect x={Math.min(98, 100 * known.mean)} width="2" height="10" className={alone ? 'fill-edge' : 'fill-dusk'} />
      </svg>
      {brief ? (
        <>
          <span className="sr-only">{says}</span>
          <span aria-hidden="true" className="text-sm text-slate tabular-nums">
            {alone ? t('year.aloneBrief') : `${percent(low)}–${percent(high)} · ${known.pieces.length}`}
          </span>
        </>
      ) : (
        <p className="text-slate">{says}</p>
      )}
    </div>
  )
}

/** The pieces over time, the latest at the end: round an answer, square a level. */
export function Pieces({ known }: { known: ObjectiveKnown }) {
  const times = known.pieces.map((p) => p.at)
  const [from, to] = [Math.min(...times), Math.max(...times)]
  const at = (time: number) => (to === from ? 150 : 10 + (280 * (time - from)) / (to - from))
  return (
    <svg aria-hidden="true" viewBox="0 0 300 60" className="block h-16 w-full max-w-sm">
      <line x1="4" x2="296" y1="54" y2="54" className="stroke-line" />
      <line x1="4" x2="296" y1="6" y2="6" className="stroke-line" strokeDasharray="3 4" />
      <line
        x1="4"
        x2="296"
        y1={54 - 48 * known.mean}
        y2={54 - 48 * known.mean}
        className="stroke-dusk"
        strokeWidth="1.5"
      />
      {known.pieces.map((p, i) =>
        p.kind === 'answer' ? (
          <circle
            key={i}
            cx={at(p.at)}
            cy={54 - 48 * p.share}
            r="4"
            className="fill-paper stroke-dusk"
            strokeWidth="2"
          />
        ) : (
          <rect key={i} x={at(p.at) - 4} y={50 - 48 * p.share} width="8" height="8" className="fill-dusk" />
        ),
      )}
    </svg>
  )
}
