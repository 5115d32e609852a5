import { Plus, Trash2 } from 'lucide-react'
import { useRef, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'

type Props<T> = {
  legend: string
  rows: T[]
  keyOf: (row: T, at: number) => string
  onRows: (rows: T[]) => void
  fresh: () => T
  least: number
  most: number
  add: string
  drop: (n: number) => string
  children: (row: T, at: number, put: (part: Partial<T>) => void) => ReactNode
}

/** A list of things that are written, added and taken away. */
export function Rows<T>({ legend, rows, keyOf, onRows, fresh, least, most, add, drop, children }: Props<T>) {
  const { t } = useTranslation()
  const list = useRef<HTMLOListElement>(null)
  // Where the focus goes when a row comes or goes.
  const focus = (at: number) =>
    requestAnimationFrame(() =>
      list.current?.children[at]?.querySelector<HTMLElement>('input:not([type=checkbox])')?.focus(),
    )
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{legend}</legend>
      <ol ref={list} className="flex flex-col gap-2">
        {rows.map((row, at) => (
          <li key={keyOf(row, at)} className="flex flex-wrap items-center gap-2">
            {children(row, at, (part) => onRows(rows.map((r, k) => (k === at ? { ...r, ...part } : r))))}
            <Button
              look="quiet"
              disabled={rows.length <= least}
              aria-label={drop(at + 1)}
              onClick={() => {
                onRows(rows.filter((_, k) => k !== at))
                focus(Math.max(0, at - 1))
              }}
            >
              <Trash2 size={17} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ol>
      <Button
        look="quiet"
        className="mt-1"
        disabled={rows.length >= most}
        onClick={() => {
          onRows([...rows, fresh()])
          focus(rows.length)
        }}
      >
        <Plus size={17} aria-hidden="true" />
        {add || t('question.addAnswer')}
      </Button>
    </fieldset>
  )
}
