import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Board, TimeLine } from '../wire/types.gen'
import { clock } from '../words/words'

const LANE = 30
const HEAD = 22
const LEAST = 480

/** Lanes of frames over time: where the class was led, how much was done in each step, pauses, and what was told. */
export function Picture({ line, board }: { line: TimeLine; board: Board }) {
  const { t } = useTranslation()
  const room = useRef<HTMLDivElement>(null)
  const [wide, setWide] = useState(900)
  useEffect(() => {
    const here = room.current
    if (!here) return
    const watch = new ResizeObserver(() => setWide(Math.max(LEAST, here.clientWidth)))
    watch.observe(here)
    return () => watch.disconnect()
  }, [])
  const titles = Math.min(220, wide * 0.26)
  const lanes = line.frames.filter((f) => f.cells.some((n) => n > 0) || line.spans.some((s) => s.frame === f.frame))
  const most = Math.max(1, ...line.frames.flatMap((f) => f.cells))
  const length = Math.max(1, line.to - line.from)
  const x = (at: number) =>
    titles + ((Math.min(Math.max(at, line.from), line.to) - line.from) / length) * (wide - titles)
  const height = HEAD + lanes.length * LANE
  const numbers = new Map(board.frames.map((f, i) => [f.id, i]))
  const ticks = Array.from({ length: 5 }, (_, i) => line.from + (length * i) / 4)
  const own = line.spans.filter((s) => s.kind === 'own')
  const paused = line.spans.filter((s) => s.kind === 'paused')
  return (
    <figure ref={room} className="overflow-x-auto">
      <svg
        role="img"
        aria-label={t('line.picture', { frames: lanes.length, from: clock(line.from), to: clock(line.to) })}
        direction="ltr"
        width={wide}
        height={height + 6}
        className="block text-[12px]"
      >
        <defs>
          <pattern id="rest" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0v6" className="stroke-slate" strokeWidth="1.4" />
          </pattern>
        </defs>
        {ticks.map((at, i) => (
          <g key={i}>
            <path d={`M${x(at)} ${HEAD - 4}V${height}`} className="stroke-line" />
            <text
              x={x(at)}
              y={13}
              textAnchor={i === 0 ? 'start' : i === ticks.length - 1 ? 'end' : 'middle'}
              className="fill-slate tabular-nums"
            >
              {i === 0 || clock(at) !== clock(ticks[i - 1]!) ? clock(at) : ''}
            </text>
          </g>
        ))}
        {own.map((s, i) => (
          <rect
            key={i}
            x={x(s.from)}
            y={HEAD}
            width={x(s.to) - x(s.from)}
            height={height - HEAD}
            className="fill-dusk-soft/60"
          />
        ))}
        {lanes.map((lane, row) => {
          const top = HEAD + row * LANE
          const n = numbers.get(lane.frame) ?? 0
          return (
            <g key={lane.frame}>
              <path d={`M0 ${top + LANE - 0.5}H${wide}`} className="stroke-line" />
              <text x={0} y={top + LANE / 2 + 4} className="fill-night">
                {`${n + 1}  ${short(board.frames[n]?.title ?? '', titles)}`}
              </text>
              {line.spans
                .filter((s) => s.frame === lane.frame)
                .map((s, i) => (
                  <rect
                    key={i}
                    x={x(s.from)}
                    y={top + 3}
                    width={Math.max(2, x(s.to) - x(s.from))}
                    height={LANE - 6}
                    rx={4}
                    className="fill-dusk-soft stroke-dusk/40"
                  />
                ))}
              {lane.cells.map((count, i) =>
                count > 0 ? (
                  <rect
                    key={i}
                    x={x(line.from + i * line.step) + 0.5}
                    y={top + LANE - 4 - Math.max(2, (count / most) * (LANE - 9))}
                    width={Math.max(1.5, x(line.from + (i + 1) * line.step) - x(line.from + i * line.step) - 1)}
                    height={Math.max(2, (count / most) * (LANE - 9))}
                    className="fill-dusk"
                  >
                    <title>{t('line.cell', { count, time: clock(line.from + i * line.step) })}</title>
                  </rect>
                ) : null,
              )}
            </g>
          )
        })}
        {paused.map((s, i) => (
          <rect
            key={i}
            x={x(s.from)}
            y={HEAD}
            width={Math.max(2, x(s.to) - x(s.from))}
            height={height - HEAD}
            fill="url(#rest)"
          />
        ))}
        {line.events.map((e, i) => (
          <path
            key={i}
            d={`M${x(e.at)} ${height - 2}l-3.5 7h7z`}
            className={e.deed ? 'fill-glow-deep' : 'fill-slate'}
          />
        ))}
      </svg>
      <figcaption className="mt-1 text-sm text-slate">
        {t('line.legend')} {own.length > 0 && t('line.legendOwn')} {paused.length > 0 && t('line.legendPaused')}
      </figcaption>
    </figure>
  )
}

const short = (title: string, width: number) => {
  const most = Math.floor(width / 7.2) - 3
  return title.length > most ? `${title.slice(0, Math.max(3, most - 1))}…` : title
}
