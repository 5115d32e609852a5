import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { ClassPage, ClassSeats } from '../wire/types.gen'

const MOST = 20

/** Who sits where: choose somebody, then a seat; a seat that is taken is freed. */
export function Seats({ page, onChange }: { page: ClassPage; onChange: (seats: ClassSeats) => void }) {
  const { t } = useTranslation()
  const [chosen, choose] = useState<string | null>(null)
  const { seats } = page.plan
  const students = page.students.filter((s) => !s.left)
  const name = (id: string) => {
    const found = students.find((s) => s.id === id)
    return found?.apart ?? found?.name ?? ''
  }
  const standing = students.filter((s) => !seats.at.includes(s.id))
  function resize(rows: number, columns: number) {
    const at = Array.from({ length: rows * columns }, (_, i) => {
      const [row, column] = [Math.floor(i / columns), i % columns]
      return row < seats.rows && column < seats.columns ? (seats.at[row * seats.columns + column] ?? '') : ''
    })
    onChange({ rows, columns, at })
  }
  function press(i: number) {
    const at = seats.at.map((id) => (id === chosen ? '' : id))
    const taken = seats.at[i] ?? ''
    at[i] = taken && !chosen ? '' : (chosen ?? '')
    choose(taken && taken !== chosen ? taken : null)
    onChange({ ...seats, at })
  }
  const size = (what: 'rows' | 'columns', value: number, set: (n: number) => void) => (
    <label className="flex items-center gap-2">
      {t(`seats.${what}`)}
      <input
        type="number"
        min={0}
        max={MOST}
        value={value}
        onChange={(e) => set(Math.max(0, Math.min(MOST, Number(e.target.value) || 0)))}
        className="w-20 rounded-lg border border-edge bg-paper px-2 py-1.5"
      />
    </label>
  )
  return (
    <div className="flex flex-col gap-4">
      <p className="text-slate">{t('seats.text')}</p>
      <div className="flex flex-wrap gap-4">
        {size('rows', seats.rows, (n) => resize(n, seats.columns))}
        {size('columns', seats.columns, (n) => resize(seats.rows, n))}
      </div>
      {standing.length > 0 && (
        <fieldset>
          <legend className="mb-1 font-semibold">{t('seats.without', { count: standing.length })}</legend>
          <div className="flex max-h-56 flex-wrap gap-1.5 overflow-auto p-1">
            {standing.map((s) => (
              <button
                key={s.id}
                type="button"
                aria-pressed={chosen === s.id}
                onClick={() => choose(chosen === s.id ? null : s.id)}
                className={`max-w-64 rounded-lg border px-2.5 py-1.5 break-words ${chosen === s.id ? 'border-dusk bg-dusk text-paper' : 'border-edge bg-paper hover:bg-mist'}`}
              >
                <bdi>{s.apart ?? s.name}</bdi>
              </button>
            ))}
          </div>
        </fieldset>
      )}
      {seats.at.length > 0 && (
        <div className="overflow-auto">
          <p className="mx-auto mb-2 w-fit rounded-lg bg-mist px-10 py-1 text-sm text-slate">{t('seats.front')}</p>
          <ol
            className="grid min-w-fit gap-2"
            style={{ gridTemplateColumns: `repeat(${seats.columns}, minmax(6rem, 1fr))` }}
          >
            {seats.at.map((id, i) => {
              const [row, column] = [Math.floor(i / seats.columns) + 1, (i % seats.columns) + 1]
              return (
                <li key={i}>
                  <button
                    type="button"
                    title={name(id)}
                    aria-label={t(id ? 'seats.taken' : 'seats.free', { row, column, name: name(id) })}
                    onClick={() => press(i)}
                    className={`h-12 w-full truncate rounded-lg border px-1.5 text-sm ${id ? 'border-dusk bg-dusk-soft font-semibold text-dusk' : 'border-dashed border-edge bg-paper text-slate hover:bg-mist'}`}
                  >
                    <bdi>{name(id)}</bdi>
                  </button>
                </li>
              )
            })}
          </ol>
        </div>
      )}
    </div>
  )
}
