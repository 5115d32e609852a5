import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Play } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useNavigate } from 'react-router'
import { Thumbnail } from '../frame/Thumbnail'
import { Button } from '../kit/Button'
import { Logo } from '../kit/Logo'
import { call, codeOf } from '../wire/http'
import type { BoardItem, Boards as Reply, ClassItem, Code, Me, SessionItem, Started } from '../wire/types.gen'
import { when } from '../words/words'

/** The teacher's boards, what runs now, and the records. */
export function Boards() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const me = useQuery({ queryKey: ['me'], queryFn: () => call<Me>('GET', '/me') })
  const list = useQuery({
    queryKey: ['boards'],
    queryFn: () => call<Reply>('GET', '/boards'),
    refetchOnMount: 'always',
  })

  if (list.isError && codeOf(list.error) === 'sign-in-needed') return <Navigate to="/sign-in" replace />
  async function signOut() {
    await call('POST', '/sign-out', {})
    queries.clear()
    void navigate('/')
  }
  const live = list.data?.sessions.filter((s) => !s.endedAt) ?? []
  const ended = list.data?.sessions.filter((s) => s.endedAt) ?? []

  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <span className="grow font-display text-lg font-semibold">{t('app')}</span>
        {me.data?.teacher && <span className="hidden text-slate sm:inline">{t('boards.hello', me.data.teacher)}</span>}
        <Button onClick={() => void signOut()}>{t('boards.signOut')}</Button>
      </header>
      <main className="mx-auto flex max-w-6xl flex-col gap-8 p-5">
        {live.length > 0 && (
          <section aria-labelledby="live">
            <h2 id="live" className="mb-3 text-lg">
              {t('boards.live')}
            </h2>
            <ul className="flex flex-col gap-2">
              {live.map((s) => (
                <li
                  key={s.id}
                  className="flex flex-wrap items-center gap-3 rounded-xl border-2 border-glow bg-glow-soft px-4 py-3"
                >
                  <span aria-hidden="true" className="size-2.5 rounded-full bg-glow" />
                  <SessionName session={s} />
                  <Link
                    to={`/run/${s.id}`}
                    className="ms-auto rounded-lg bg-glow px-3.5 py-1.5 font-semibold text-paper hover:bg-glow-deep"
                  >
                    {t('boards.toSession')}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
        <section aria-labelledby="boards">
          <h1 id="boards" className="mb-3 text-3xl">
            {t('boards.title')}
          </h1>
          {list.isPending && <p role="status">{t('loading')}</p>}
          {list.isError && (
            <p role="alert">
              {t(`refusal.${codeOf(list.error)}`)} <Button onClick={() => void list.refetch()}>{t('retry')}</Button>
            </p>
          )}
          {list.data?.boards.length === 0 && (
            <p className="rounded-xl border border-dashed border-edge p-8 text-center text-slate">
              {t('boards.empty')}
            </p>
          )}
          <ul className="grid gap-5 sm:grid-cols-2 lg:grid-cols-3">
            {list.data?.boards.map((board) => (
              <BoardCard key={board.id} board={board} classes={list.data.classes} />
            ))}
          </ul>
        </section>
        {list.data && (
          <section aria-labelledby="records">
            <h2 id="records" className="mb-3 text-xl">
              {t('boards.records')}
            </h2>
            {ended.length === 0 && <p className="text-slate">{t('boards.noRecords')}</p>}
            <ul className="divide-y divide-line overflow-hidden rounded-xl border border-line bg-paper empty:hidden">
              {ended.map((s) => (
                <li key={s.id} className="flex flex-wrap items-center gap-3 px-4 py-2.5">
                  <SessionName session={s} />
                  <Link
                    to={`/records/${s.id}`}
                    className="ms-auto font-semibold text-dusk underline underline-offset-4"
                  >
                    {t('boards.toRecord')}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  )
}

function SessionName({ session }: { session: SessionItem }) {
  const { t } = useTranslation()
  return (
    <span>
      <b className="font-semibold">{session.className ? t('boards.with', session) : session.title}</b>
      <span className="text-slate">
        {' · '}
        {when(session.startedAt)} · {t('boards.students', { count: session.students })}
      </span>
    </span>
  )
}

function BoardCard({ board, classes }: { board: BoardItem; classes: ClassItem[] }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [chosen, setChosen] = useState(classes[0]?.id ?? '')
  const [problem, setProblem] = useState<Code | null>(null)
  const [busy, setBusy] = useState(false)

  async function start() {
    setBusy(true)
    try {
      const { session } = await call<Started>('POST', `/boards/${board.id}/sessions`, { class: chosen })
      void navigate(`/run/${session}`)
    } catch (error) {
      setProblem(codeOf(error))
      setBusy(false)
    }
  }

  return (
    <li className="overflow-hidden rounded-2xl border border-line bg-paper">
      <div className="border-b border-line">
        <Thumbnail frame={board.first} marks={[]} width={480} label={board.first.title} />
      </div>
      <div className="flex flex-col gap-3 p-4">
        <div>
          <h2 className="text-lg">{board.title}</h2>
          <p className="text-sm text-slate">
            {t('boards.frames', { count: board.frames })} · {t('boards.changed', { when: when(board.changedAt) })}
          </p>
        </div>
        <label className="flex items-center gap-2 text-sm">
          <span className="font-semibold">{t('boards.class')}</span>
          <select
            className="grow rounded-lg border border-edge bg-paper px-2 py-1.5"
            value={chosen}
            onChange={(e) => setChosen(e.target.value)}
          >
            {classes.map((c) => (
              <option key={c.id} value={c.id}>
                {t('boards.classOption', { name: c.name, count: c.students })}
              </option>
            ))}
            <option value="">{t('boards.noClass')}</option>
          </select>
        </label>
        <Button look="main" disabled={busy} aria-label={t('boards.startOf', board)} onClick={() => void start()}>
          <Play size={17} aria-hidden="true" />
          {t('boards.start')}
        </Button>
        {problem && (
          <p role="alert" className="font-semibold text-rose">
            {t(`refusal.${problem}`)}
          </p>
        )}
      </div>
    </li>
  )
}
