import { FileSpreadsheet } from 'lucide-react'
import { useEffect, useId, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { call, codeOf, send } from '../wire/http'
import type { Code, ListText, NameColumns, NameList as Ask, NameRows } from '../wire/types.gen'
import { Columns } from './Columns'

/** A list as it stands, and where in it the names are, once somebody has said so. */
export type Listed = { list: string; columns?: NameColumns }

/** How long somebody has stopped typing before the list is looked at. */
const LOOK_MS = 400
const nothing: NameRows = { rows: [], columns: { given: 0, family: -1 }, head: [] }

type Props = {
  /** The class that the names come into; a new one without. */
  of?: string
  listed: Listed
  onListed: (listed: Listed) => void
  /** How many names it has, once they are known. */
  onCount: (count: number) => void
}

/** A list of names to type, paste or bring as a file, and beside it what each line is taken for. */
export function NameList({ of, listed, onListed, onCount }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const file = useRef<HTMLInputElement>(null)
  const [read, setRead] = useState(nothing)
  const [problem, setProblem] = useState<Code | null>(null)
  const { list, columns } = listed
  useEffect(() => {
    let here = true
    const timer = setTimeout(() => {
      void (async () => {
        try {
          const next = list.trim()
            ? await call<NameRows>('POST', '/list', { class: of, list, columns } satisfies Ask)
            : nothing
          if (!here) return
          setRead(next)
          setProblem(null)
          onCount(next.rows.filter((r) => !r.problem).length)
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
  }, [list, columns, of, onCount])
  async function open(chosen: File) {
    try {
      onListed({ list: (await send<ListText>('/list/file', chosen, () => undefined).done).list })
      setProblem(null)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  const bad = read.rows.filter((r) => r.problem)
  const twice = read.rows.filter((r) => r.twice)
  const many = Math.max(0, ...read.head.map((r) => r.length)) > 1
  const at = (next: NameColumns) => onListed({ list, columns: next })
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <div className="min-w-0">
        <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
          <label htmlFor={id} className="font-semibold">
            {t('classes.names')}
          </label>
          <Button onClick={() => file.current?.click()}>
            <FileSpreadsheet size={17} aria-hidden="true" />
            {t('classes.file')}
          </Button>
          <input
            ref={file}
            type="file"
            aria-label={t('classes.file')}
            accept=".xlsx,.csv,.tsv,.txt"
            className="sr-only"
            tabIndex={-1}
            onChange={(e) => {
              const [chosen] = e.target.files ?? []
              e.target.value = ''
              if (chosen) void open(chosen)
            }}
          />
        </div>
        <textarea
          id={id}
          aria-describedby={`${id}-help`}
          value={list}
          rows={12}
          dir="auto"
          onChange={(e) => onListed({ list: e.target.value })}
          className="w-full rounded-xl border-2 border-edge bg-paper px-3 py-2"
        />
        <p id={`${id}-help`} className="mt-1 text-slate">
          {t('classes.namesHelp')}
        </p>
      </div>
      <div className="min-w-0">
        {many && <Columns head={read.head} columns={read.columns} onColumns={at} />}
        <p role="status" className="mb-1 font-semibold">
          {problem ? t(`refusal.${problem}`) : t('classes.count', { count: read.rows.length - bad.length })}
        </p>
        {bad.length > 0 && <p className="font-semibold text-rose">{t('classes.bad', { count: bad.length })}</p>}
        {twice.length > 0 && <p className="text-amber">{t('classes.twice', { count: twice.length })}</p>}
        <ol className="mt-1 max-h-80 overflow-auto rounded-xl border border-line bg-snow px-3 py-1 empty:hidden">
          {read.rows.map((row) => (
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
