import { Check } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { GridChart } from '../../wire/types.gen'

/** Who-to-what as a table: the darker, the more. */
export function Grid({ chart, answered }: { chart: GridChart; answered: number }) {
  const { t } = useTranslation()
  const tint = (count: number) => ({
    background: `color-mix(in srgb, var(--color-dusk) ${answered ? Math.round((45 * count) / answered) : 0}%, var(--color-paper))`,
  })
  // A class sees what was written only when no more can come unread.
  if (!chart.columns && answered > 0 && chart.rows.every((row) => row.cells.length === 0))
    return <p className="text-slate">{t('poll.textsLater')}</p>
  if (!chart.columns)
    return (
      <ol className="flex flex-col gap-[0.5em]">
        {chart.rows.map((row) => (
          <li key={row.text} className="flex flex-wrap items-center gap-[0.4em]">
            <b className="w-[2em] shrink-0 tabular-nums">{row.text}.</b>
            {row.cells.map((cell) => (
              <span
                key={cell.text}
                className="flex items-center gap-[0.3em] rounded-[0.4em] border-2 border-edge px-[0.5em]"
                style={tint(cell.count)}
              >
                {cell.right && <Check size="1em" role="img" aria-label={t('poll.right')} className="text-fern-deep" />}
                <span dir="auto">
                  {cell.text}
                  {cell.mistake && <span className="text-[0.85em] text-amber"> ({cell.mistake})</span>}
                </span>
                <b className="tabular-nums">{cell.count}</b>
              </span>
            ))}
            {row.more ? <span className="text-slate">{t('poll.moreTexts', { count: row.more })}</span> : null}
          </li>
        ))}
      </ol>
    )
  return (
    // oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a table that is wider than the screen is scrolled by keys
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={t('poll.whoToWhat')}>
      <table className="border-separate border-spacing-[0.2em]">
        <thead>
          <tr>
            <td />
            {chart.columns.map((c, i) => (
              <th key={i} scope="col" dir="auto" className="max-w-[10em] px-[0.4em] text-start text-[0.85em]">
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {chart.rows.map((row, i) => (
            <tr key={i}>
              <th scope="row" dir="auto" className="max-w-[12em] pe-[0.5em] text-start text-[0.85em]">
                {row.text}
              </th>
              {row.cells.map((cell, j) => (
                <td
                  key={j}
                  style={tint(cell.count)}
                  title={cell.mistake}
                  className={`min-w-[3.5em] rounded-[0.3em] text-center tabular-nums ${cell.right ? 'border-3 border-fern' : 'border border-line'}`}
                >
                  {cell.count}
                  {cell.right && <span className="sr-only"> {t('poll.right')}</span>}
                  {cell.mistake && <span className="block text-[0.75em] text-night">{cell.mistake}</span>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
