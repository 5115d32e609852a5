import { memo } from 'react'
import type { Element } from '../../wire/types.gen'
import { CELL, columnWidths } from '../paint/geometry'

/** Prepared text in rows and columns. */
export const TableMark = memo(function TableMark({ mark }: { mark: Element & { kind: 'table' } }) {
  const [head, ...rows] = mark.table.rows
  const cell = 'border-2 border-edge px-3.5 text-start break-words whitespace-pre-wrap'
  return (
    <table
      className="mark-words pointer-events-none absolute table-fixed border-collapse bg-paper"
      style={{ left: mark.x, top: mark.y, width: mark.w, height: mark.h, fontSize: CELL.size, lineHeight: CELL.line }}
    >
      <colgroup>
        {columnWidths(mark.table.rows, mark.w).map((width, i) => (
          <col key={i} style={{ width }} />
        ))}
      </colgroup>
      <thead className="bg-mist">
        <tr>
          {head?.map((text, i) => (
            <th key={i} dir="auto" scope="col" className={`${cell} font-semibold`}>
              {text}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, y) => (
          <tr key={y}>
            {row.map((text, x) =>
              x === 0 ? (
                <th key={x} dir="auto" scope="row" className={`${cell} font-normal`}>
                  {text}
                </th>
              ) : (
                <td key={x} dir="auto" className={`${cell} tabular-nums`}>
                  {text}
                </td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  )
})
