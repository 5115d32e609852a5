import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { call, codeOf } from '../wire/http'
import type { BoardItem, Code, Found, FoundFrame, SetCard } from '../wire/types.gen'
import { BoardCard } from './BoardCard'
import { FoundSaid } from './FoundSaid'

const orders = ['opened', 'changed', 'name'] as const
type Order = (typeof orders)[number]
const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

function inOrder(boards: BoardItem[], order: Order): BoardItem[] {
  const time = (b: BoardItem) => (order === 'opened' ? (b.openedAt ?? b.changedAt) : b.changedAt)
  return boards.toSorted((a, b) => (order === 'name' ? collator.compare(a.title, b.title) : time(a) < time(b) ? 1 : -1))
}

/** The boards: searched, ordered, by folder; the archived ones apart. */
export function Shelf({ boards }: { boards: BoardItem[] }) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [words, setWords] = useState('')
  const [order, setOrder] = useState<Order>('opened')
  const [folder, setFolder] = useState('*')
  const [archived, setArchived] = useState(false)
  const [deleted, setDeleted] = useState<BoardItem | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  const folders = useMemo(
    () => [...new Set(boards.map((b) => b.folder).filter(Boolean))].sort(collator.compare),
    [boards],
  )
  const wanted = words.toLocaleLowerCase().split(/\s+/).filter(Boolean)
  const { byBoard: found, all } = useFound(words)
  const shown = inOrder(boards, order).filter(
    (b) =>
      Boolean(b.archived) === archived &&
      (folder === '*' || b.folder === folder) &&
      (found.has(b.id) || wanted.every((w) => `${b.title} ${b.folder}`.toLocaleLowerCase().includes(w))),
  )
  async function set(board: BoardItem, card: SetCard) {
    setProblem(null)
    try {
      await call('POST', `/boards/${board.id}/card`, card)
      await queries.invalidateQueries({ queryKey: ['boards'] })
      if (card.deleted !== undefined) setDeleted(card.deleted ? board : null)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  const field = 'rounded-lg border border-edge bg-paper px-2.5 py-1.5'
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <input
          type="search"
          aria-label={t('boards.search')}
          placeholder={t('boards.search')}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          className={`${field} min-w-48 grow`}
        />
        <label className="flex items-center gap-2 text-sm">
          {t('boards.sort')}
          <select className={field} value={order} onChange={(e) => setOrder(e.target.value as Order)}>
            {orders.map((by) => (
              <option key={by} value={by}>
                {t(`boards.by_${by}`)}
              </option>
            ))}
          </select>
        </label>
        {folders.length > 0 && (
          <label className="flex items-center gap-2 text-sm">
            {t('boards.folder')}
            <select className={field} value={folder} onChange={(e) => setFolder(e.target.value)}>
              <option value="*">{t('boards.allFolders')}</option>
              <option value="">{t('boards.noFolder')}</option>
              {folders.map((f) => (
                <option key={f} value={f}>
                  {f}
                </option>
              ))}
            </select>
          </label>
        )}
        {(archived || boards.some((b) => b.archived)) && (
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="size-4 accent-dusk"
              checked={archived}
              onChange={(e) => setArchived(e.target.checked)}
            />
            {t('boards.showArchived')}
          </label>
        )}
      </div>
      {problem && (
        <p role="alert" className="mb-3 font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
      {shown.length === 0 && <p className="p-6 text-center text-slate">{t('boards.none')}</p>}
      <ul className="grid gap-5 sm:grid-cols-2 lg:grid-cols-3">
        {shown.map((board) => (
          <BoardCard
            key={board.id}
            board={board}
            found={found.get(board.id) ?? nothing}
            folders={folders}
            onSet={(card) => void set(board, card)}
          />
        ))}
      </ul>
      {all && <FoundSaid found={all} />}
      <div role="status" className="pointer-events-none fixed inset-x-0 bottom-6 z-30 flex justify-center px-4">
        {deleted && (
          <p className="pointer-events-auto flex items-center gap-3 rounded-xl border border-line bg-paper px-4 py-2 font-semibold shadow-lg">
            {t('boards.deleted', { title: deleted.title })}
            <Button onClick={() => void set(deleted, { deleted: false })}>{t('boards.undo')}</Button>
          </p>
        )}
      </div>
    </>
  )
}

const nothing: FoundFrame[] = []
/** How long somebody pauses in typing before the server is asked. */
const PAUSE_MS = 250

/** The frames on which the typed words are found, by board, and all that was found. */
function useFound(typed: string): { byBoard: Map<string, FoundFrame[]>; all: Found | undefined } {
  const [words, setWords] = useState('')
  useEffect(() => {
    const timer = setTimeout(() => setWords(typed.trim()), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [typed])
  const asked = useQuery({
    queryKey: ['found', words],
    queryFn: () => call<Found>('GET', `/search?words=${encodeURIComponent(words)}`),
    enabled: words !== '',
    staleTime: 10_000,
  })
  const all = typed.trim() ? asked.data : undefined
  const byBoard = useMemo(() => {
    const byBoard = new Map<string, FoundFrame[]>()
    for (const f of all?.frames ?? []) byBoard.set(f.board, [...(byBoard.get(f.board) ?? []), f])
    return byBoard
  }, [all])
  return { byBoard, all }
}
