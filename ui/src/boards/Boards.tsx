import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Logo } from '../kit/Logo'
import { call, codeOf } from '../wire/http'
import type { Boards as Reply } from '../wire/types.gen'
import { useMe } from '../wire/hooks/useMe'
import { when } from '../words/words'
import { LiveLessons } from './LiveLessons'
import { NewBoard } from './NewBoard'
import { SessionName } from '../kit/SessionName'
import { Shelf } from './Shelf'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'

/** The teacher's boards, what runs now, and the records. */
export function Boards() {
  const { t } = useTranslation()
  useTitle(t('boards.title'))
  const navigate = useNavigate()
  const queries = useQueryClient()
  const me = useMe()
  const list = useQuery({
    queryKey: ['boards'],
    queryFn: () => call<Reply>('GET', '/boards'),
    refetchOnMount: 'always',
  })

  if (list.isError && codeOf(list.error) === 'sign-in-needed') return <ToSignIn />
  async function signOut() {
    await call('POST', '/sign-out', {})
    queries.clear()
    void navigate('/')
  }
  const guest = me.data?.teacher?.goesAt
  const live = list.data?.sessions.filter((s) => !s.endedAt) ?? []
  const ended = list.data?.sessions.filter((s) => s.endedAt && !s.away) ?? []

  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <span className="grow font-display text-lg font-semibold">{t('app')}</span>
        {me.data?.teacher && !guest && (
          <Link to="/classes" className="font-semibold text-dusk underline underline-offset-4">
            {t('classes.title')}
          </Link>
        )}
        {me.data?.teacher?.role === 'administrator' && (
          <Link to="/staff" className="font-semibold text-dusk underline underline-offset-4">
            {t('staff.title')}
          </Link>
        )}
        {me.data?.teacher && !guest && (
          <Link to="/settings" className="max-w-48 truncate font-semibold text-dusk underline underline-offset-4">
            {me.data.teacher.name}
          </Link>
        )}
        <Button onClick={() => void signOut()}>{t(guest ? 'guest.leave' : 'boards.signOut')}</Button>
      </header>
      {guest && (
        <p role="status" className="flex flex-wrap items-center gap-3 bg-glow-soft px-5 py-3 text-glow-deep">
          <span className="grow">{t('guest.until', { when: when(guest) })}</span>
          <Link to="/sign-in" className="font-semibold underline underline-offset-4">
            {t('guest.keep')}
          </Link>
        </p>
      )}
      <main className="mx-auto flex max-w-6xl flex-col gap-8 p-5">
        {live.length > 0 && <LiveLessons live={live} />}
        <section aria-labelledby="boards">
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <h1 id="boards" className="grow text-3xl">
              {t('boards.title')}
            </h1>
            <NewBoard />
          </div>
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
          {list.data && list.data.boards.length > 0 && <Shelf boards={list.data.boards} />}
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
