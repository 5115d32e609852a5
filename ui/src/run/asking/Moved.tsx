import { useTranslation } from 'react-i18next'
import type { FlowEnd, RoundsCompared } from '../../wire/types.gen'

const [WIDE, BAR, LABELS, GAP, HIGH] = [640, 14, 190, 6, 150]
const looks = { right: 'fill-fern', partly: 'fill-amber', wrong: 'fill-rose', '': 'fill-dusk' }

/** Who moved from where to where between two rounds: the same students, as a picture and in words. */
export function Moved({ moved, round }: { moved: RoundsCompared; round: number }) {
  const { t, i18n } = useTranslation()
  const { of, flows, kept, learned, lost, chance, classGain, band, meanGain, meanOf } = moved
  if (of === 0) return <p className="text-slate">{t('asking.nobodyBoth')}</p>
  const number = new Intl.NumberFormat(i18n.language, { maximumFractionDigits: 2, signDisplay: 'negative' })
  const small = new Intl.NumberFormat(i18n.language, { maximumFractionDigits: 3 })
  const words = (end: FlowEnd) => {
    const truth = end.key === 'true' || end.key === 'false' || end.key === 'notSure'
    return truth
      ? t(`poll.truth_${end.key as 'true'}`)
      : end.text || (end.verdict ? t(`poll.verdict_${end.verdict}`) : '')
  }
  const ends = (side: 'from' | 'to') => {
    const all = new Map<string, { end: FlowEnd; count: number; y: number; used: number }>()
    for (const f of flows) {
      const was = all.get(f[side].key)
      if (was) was.count += f.count
      else all.set(f[side].key, { end: f[side], count: f.count, y: 0, used: 0 })
    }
    const order = { right: 0, partly: 1, wrong: 2, '': 3 }
    const list = [...all.values()].sort(
      (a, b) =>
        order[a.end.verdict ?? ''] - order[b.end.verdict ?? ''] ||
        b.count - a.count ||
        (a.end.key < b.end.key ? -1 : 1),
    )
    let y = 0
    for (const one of list) {
      one.y = y
      y += Math.max(18, (HIGH * one.count) / of) + GAP
    }
    return { all, high: y }
  }
  const before = ends('from')
  const after = ends('to')
  const high = Math.max(before.high, after.high)
  const [x0, x1] = [LABELS + BAR, WIDE - LABELS - BAR]
  return (
    <section
      aria-label={t('asking.moved', { before: round - 1, round })}
      className="rounded-xl border border-line bg-paper p-4"
    >
      <h3 className="mb-2 font-semibold">{t('asking.moved', { before: round - 1, round })}</h3>
      <svg
        viewBox={`0 0 ${WIDE} ${high}`}
        className="w-full max-w-3xl"
        role="img"
        aria-label={flows.map((f) => `${words(f.from)} → ${words(f.to)}: ${f.count}`).join('; ')}
      >
        {flows.map((f) => {
          const a = before.all.get(f.from.key)!
          const b = after.all.get(f.to.key)!
          const thick = (HIGH * f.count) / of
          const [ya, yb] = [a.y + a.used, b.y + b.used]
          a.used += thick
          b.used += thick
          const mid = (x0 + x1) / 2
          return (
            <path
              key={`${f.from.key} ${f.to.key}`}
              className={`${looks[f.to.verdict ?? '']} opacity-30`}
              d={`M${x0} ${ya} C${mid} ${ya} ${mid} ${yb} ${x1} ${yb} V${yb + thick} C${mid} ${yb + thick} ${mid} ${ya + thick} ${x0} ${ya + thick} Z`}
            />
          )
        })}
        {[
          { list: before.all, x: LABELS, text: LABELS - 8, anchor: 'end' as const },
          { list: after.all, x: WIDE - LABELS - BAR, text: WIDE - LABELS + 8, anchor: 'start' as const },
        ].map(({ list, x, text, anchor }) =>
          [...list.values()].map(({ end, count, y }) => (
            <g key={`${anchor} ${end.key}`}>
              <rect x={x} y={y} width={BAR} height={(HIGH * count) / of} className={looks[end.verdict ?? '']} />
              <text x={text} y={y + 15} textAnchor={anchor} className="fill-night text-[14px]">
                {count} · {short(words(end))}
              </text>
            </g>
          )),
        )}
      </svg>
      {chance !== undefined && (
        <ul className="mt-3 flex flex-col gap-1">
          <li>{t('asking.learned', { of, learned, lost, kept })}</li>
          <li>
            {t(
              learned + lost === 0 ? 'asking.nobodyMoved' : chance < 0.05 ? 'asking.notChance' : 'asking.mayBeChance',
              {
                p: chance < 0.001 ? `< ${small.format(0.001)}` : `= ${small.format(chance)}`,
              },
            )}
          </li>
          {classGain !== undefined && band && (
            <li>{t('asking.classGain', { gain: number.format(classGain), band: t(`asking.band_${band}`) })}</li>
          )}
          {meanGain !== undefined && (
            <li>{t('asking.meanGain', { gain: number.format(meanGain), count: meanOf ?? 0 })}</li>
          )}
        </ul>
      )}
    </section>
  )
}

const short = (words: string) => (words.length > 22 ? `${words.slice(0, 21)}…` : words)
