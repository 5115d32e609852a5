import { useInfiniteQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { call, codeOf } from '../wire/http'
import type { Journal as Reply } from '../wire/types.gen'
import { when } from '../words/words'
import { Rooms } from './Rooms'

const PAGE = 100

/** Who did what to accounts, classes and records. Nobody changes it. */
export function Journal() {
  const { t } = useTranslation()
  const journal = useInfiniteQuery({
    queryKey: ['journal'],
    queryFn: ({ pageParam }) => call<Reply>('GET', `/journal?before=${pageParam}`),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.entries.length < PAGE ? undefined : last.entries.at(-1)?.id),
    staleTime: 0,
  })
  const code = journal.isError ? codeOf(journal.error) : null
  if (code === 'sign-in-needed') return <ToSignIn />
  const entries = journal.data?.pages.flatMap((p) => p.entries) ?? []
  return (
    <Rooms room="journal">
      <p className="text-slate">{t('journal.text')}</p>
      <Refusal code={code} />
      {journal.isPending && <p role="status">{t('loading')}</p>}
      {journal.data && entries.length === 0 && <p className="text-slate">{t('journal.none')}</p>}
      <ol className="divide-y divide-line rounded-xl border border-line bg-paper empty:hidden">
        {entries.map((e) => (
          <li key={e.id} className="flex flex-wrap gap-x-4 px-4 py-2">
            <time dateTime={e.at} className="w-48 shrink-0 text-slate">
              {when(e.at)}
            </time>
            <span className="min-w-0 grow basis-72">
              <b className="font-semibold">
                <bdi>{e.by || t('journal.somebody')}</bdi>
              </b>{' '}
              {t(`journal.did_${e.what}`)}
              {(e.about || e.detail) && (
                <span className="text-slate">: {[e.about, e.detail].filter(Boolean).join(' · ')}</span>
              )}
            </span>
          </li>
        ))}
      </ol>
      {journal.hasNextPage && (
        <Button className="self-center" disabled={journal.isFetching} onClick={() => void journal.fetchNextPage()}>
          {t('journal.more')}
        </Button>
      )}
    </Rooms>
  )
}
