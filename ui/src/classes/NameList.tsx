import { useEffect, useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call, codeOf } from '../wire/http'
import type { Code, NameList as Ask, NameRow, NameRows } from '../wire/types.gen'

/** How long somebody has stopped typing before the list is looked at. */
const LOOK_MS = 400

type Props = {
  /** The class that the names come into; a new one without. */
  of?: string
  list: string
  onList: (list: string) => void
  /** How many names it has, once they are known. */
  onCount: (count: number) => void
}

/** A list of names to type or paste, and beside it what each line is taken for. */
export function NameList({ of, list, onList, onCount }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const [rows, setRows] = useState<NameRow[]>([])
  const [problem, setProblem] = useState<Code | null>(null)
  useEffect(() => {
    let here = true
    const timer = setTimeout(() => {
      void (async () => {
        try {
          const read = list.trim()
            ? (await call<NameRows>('POST', '/list', { class: of, list } satisfies Ask)).rows
            : []
          if (!here) return
          setRows(read)
          setProblem(null)
          onCount(read.filter((r) => !r.problem).length)
        } catch (error) {
          if (!here) return
          setProblem(codeOf(error))
          onCount(0)
        }
      })()
    }, LOOK_MS)
    return () => {
      here = false
      clearTimeout(timer)
    }
  }, [list, of, onCount])
  const bad = rows.filter((r) => r.problem)
  const twice = rows.filter((r) => r.twice)
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <div>
        <label htmlFor={id} className="mb-1 block font-semibold">
          {t('classes.names')}
        </label>
        <textarea
          id={id}
          aria-describedby={`${id}-help`}
          value={list}
          rows={12}
          dir="auto"
          onChange={(e) => onList(e.target.value)}
          className="w-full rounded-xl border-2 border-edge bg-paper px-3 py-2"
        />
        <p id={`${id}-help`} className="mt-1 text-slate">
          {t('classes.namesHelp')}
        </p>
      </div>
      <div className="min-w-0">
        <p role="status" className="mb-1 font-semibold">
          {problem ? t(`refusal.${problem}`) : t('classes.count', { count: rows.length - bad.length })}
        </p>
        {bad.length > 0 && <p className="font-semibold text-rose">{t('classes.bad', { count: bad.length })}</p>}
        {twice.length > 0 && <p className="text-amber">{t('classes.twice', { count: twice.length })}</p>}
        <ol className="mt-1 max-h-80 overflow-auto rounded-xl border border-line bg-snow px-3 py-1 empty:hidden">
          {rows.map((row) => (
            <li key={row.line} className={`flex flex-wrap gap-x-2 py-0.5 ${row.problem ? 'text-rose' : ''}`}>
              <bdi className="min-w-0 truncate">{row.name}</bdi>
              {row.problem && (
                <span className="text-sm">
                  {t('classes.line', { n: row.line })}: {t(`classes.problem_${row.problem}`)}
                </span>
              )}
              {row.twice && <span className="text-sm text-amber">{t('classes.sameName')}</span>}
            </li>
          ))}
        </ol>
      </div>
    </div>
  )
}
