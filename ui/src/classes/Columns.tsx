import { useTranslation } from 'react-i18next'
import type { NameColumns } from '../wire/types.gen'

type Props = { head: string[][]; columns: NameColumns; onColumns: (columns: NameColumns) => void }

/** The first lines of a list in its columns, and which of them hold the names. */
export function Columns({ head, columns, onColumns }: Props) {
  const { t } = useTranslation()
  const width = Math.max(...head.map((r) => r.length))
  const of = (i: number) => (i === columns.given ? 'given' : i === columns.family ? 'family' : 'none')
  function set(i: number, to: string) {
    const next = { ...columns }
    if (next.given === i) next.given = -1
    if (next.family === i) next.family = -1
    if (to === 'given') next.given = i
    if (to === 'family') next.family = i
    onColumns(next)
  }
  return (
    <fieldset className="mb-3 min-w-0">
      <legend className="mb-1 font-semibold">{t('classes.columns')}</legend>
      <div className="overflow-auto rounded-xl border border-line">
        <table className="w-full text-sm">
          <thead>
            <tr>
              {Array.from({ length: width }, (_, i) => (
                <th key={i} className="min-w-28 bg-mist p-1 font-normal">
                  <select
                    aria-label={t('classes.column', { n: i + 1 })}
                    value={of(i)}
                    onChange={(e) => set(i, e.target.value)}
                    className={`w-full rounded-md border bg-paper px-1 py-1 ${of(i) === 'none' ? 'border-edge text-slate' : 'border-dusk font-semibold text-dusk'}`}
                  >
                    {(['none', 'given', 'family'] as const).map((what) => (
                      <option key={what} value={what}>
                        {t(`classes.column_${what}`)}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {head.map((row, n) => (
              <tr key={n} className={n === 0 && columns.headed ? 'text-slate italic' : ''}>
                {Array.from({ length: width }, (_, i) => (
                  <td key={i} className="max-w-40 truncate border-t border-line px-2 py-0.5">
                    <bdi>{row[i]}</bdi>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          checked={columns.headed ?? false}
          onChange={(e) => onColumns({ ...columns, headed: e.target.checked })}
          className="size-4 accent-dusk"
        />
        {t('classes.headed')}
      </label>
    </fieldset>
  )
}
