import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useHand } from '../../frame/hand/useHand'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import type { Element } from '../../wire/types.gen'
import { useSaving } from '../useSaving'

type Props = { mark: Element & { kind: 'table' }; onClose: () => void }

const MAX = { rows: 30, columns: 12 }

/** Where a table is written. A table from a spreadsheet can be pasted into any cell. */
export function TableEditor({ mark, onClose }: Props) {
  const { t } = useTranslation()
  const hand = useHand()
  const [rows, setRows] = useState(mark.table.rows)
  const wide = rows[0]!.length
  const sized = (r: number, c: number) =>
    Array.from({ length: r }, (_, y) => Array.from({ length: c }, (_, x) => rows[y]?.[x] ?? ''))
  const write = (y: number, x: number, text: string) =>
    setRows(rows.map((row, j) => (j === y ? row.map((cell, i) => (i === x ? text : cell)) : row)))
  function paste(y: number, x: number, text: string) {
    const cells = text
      .replace(/\r?\n$/, '')
      .split(/\r?\n/)
      .map((line) => line.split('\t'))
    const r = Math.min(MAX.rows, Math.max(rows.length, y + cells.length))
    const c = Math.min(MAX.columns, Math.max(wide, x + Math.max(...cells.map((row) => row.length))))
    const next = sized(r, c)
    cells.forEach((row, j) =>
      row.forEach((cell, i) => {
        if (next[y + j]?.[x + i] !== undefined) next[y + j]![x + i] = cell
      }),
    )
    setRows(next)
  }
  const saved = useRef(JSON.stringify(mark.table.rows))
  useSaving(rows, () => {
    if (JSON.stringify(rows) === saved.current) return
    saved.current = JSON.stringify(rows)
    const h = Math.min(1000 - mark.y, Math.max(48 * rows.length, (mark.h / mark.table.rows.length) * rows.length))
    hand.do([{ kind: 'set', set: { mark: mark.id, rows, h } }])
  })
  return (
    <Dialog open wide onOpenChange={onClose} title={t('prepare.tableTitle')} text={t('prepare.tableText')}>
      <div className="overflow-auto">
        <table className="border-collapse">
          <tbody>
            {rows.map((row, y) => (
              <tr key={y}>
                {row.map((cell, x) => (
                  <td key={x} className="border border-line p-0">
                    <input
                      aria-label={t('prepare.cell', { row: y + 1, column: x + 1 })}
                      value={cell}
                      maxLength={600}
                      className={`w-36 px-2 py-1.5 ${y === 0 ? 'bg-mist font-semibold' : 'bg-paper'}`}
                      onChange={(e) => write(y, x, e.target.value)}
                      onPaste={(e) => {
                        const text = e.clipboardData.getData('text/plain')
                        if (!/[\t\n]/.test(text)) return
                        e.preventDefault()
                        paste(y, x, text)
                      }}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-4 flex flex-wrap gap-2">
        <Button disabled={rows.length >= MAX.rows} onClick={() => setRows(sized(rows.length + 1, wide))}>
          {t('prepare.addRow')}
        </Button>
        <Button disabled={rows.length <= 1} onClick={() => setRows(sized(rows.length - 1, wide))}>
          {t('prepare.dropRow')}
        </Button>
        <Button disabled={wide >= MAX.columns} onClick={() => setRows(sized(rows.length, wide + 1))}>
          {t('prepare.addColumn')}
        </Button>
        <Button disabled={wide <= 1} onClick={() => setRows(sized(rows.length, wide - 1))}>
          {t('prepare.dropColumn')}
        </Button>
        <span className="grow" />
        <Button look="main" onClick={onClose}>
          {t('prepare.done')}
        </Button>
      </div>
    </Dialog>
  )
}
