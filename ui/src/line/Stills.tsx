import { useQuery } from '@tanstack/react-query'
import { Bookmark, Columns2, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import { useAct } from '../wire/hooks/useAct'
import type { KeepStill, Stills as Reply } from '../wire/types.gen'
import { clock } from '../words/words'

/** The moments of a lesson that have a name. */
export function useStills(session: string) {
  return useQuery({
    queryKey: ['stills', session],
    queryFn: () => call<Reply>('GET', `/sessions/${session}/stills`),
  })
}

/** Keeps how a lesson stands now under a name, and leads to two such moments side by side. */
export function Stills({ session, live }: { session: string; live?: boolean }) {
  const { t } = useTranslation()
  const { act, problem } = useAct('stills')
  const [name, setName] = useState('')
  const reply = useStills(session)
  const all = reply.data?.stills ?? []
  async function keep() {
    const refused = await act(() => call('POST', `/sessions/${session}/stills`, { name } satisfies KeepStill))
    if (!refused) setName('')
  }
  return (
    <section aria-labelledby="stills" className="flex flex-col gap-2">
      <h2 id="stills" className="text-xl">
        {t('stills.title')}
      </h2>
      <Refusal code={problem ?? (reply.isError ? codeOf(reply.error) : null)} />
      {live && (
        <form
          className="flex flex-wrap items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            if (name.trim()) void keep()
          }}
        >
          <input
            aria-label={t('stills.name')}
            placeholder={t('stills.example')}
            value={name}
            maxLength={60}
            dir="auto"
            onChange={(e) => setName(e.target.value)}
            className="min-h-10 w-64 rounded-lg border border-edge bg-paper px-3"
          />
          <Button type="submit" disabled={name.trim() === ''}>
            <Bookmark size={17} aria-hidden="true" />
            {t('stills.keep')}
          </Button>
        </form>
      )}
      {all.length === 0 && <p className="text-slate">{t(live ? 'stills.none' : 'stills.nothing')}</p>}
      <ul className="flex flex-wrap gap-2">
        {all.map((s) => (
          <li key={s.id} className="flex items-center gap-1 rounded-xl border border-line bg-paper py-1 ps-3 pe-1">
            <bdi className="font-semibold">{s.name}</bdi>
            <span className="text-sm text-slate tabular-nums">{clock(s.at)}</span>
            <button
              type="button"
              aria-label={t('stills.drop', { name: s.name })}
              onClick={() => void act(() => call('DELETE', `/sessions/${session}/stills/${s.id}`))}
              className="grid size-8 place-items-center rounded-lg text-slate hover:bg-mist hover:text-night"
            >
              <Trash2 size={15} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <p>
        <Link
          to={`/records/${session}/between`}
          className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist"
        >
          <Columns2 size={17} aria-hidden="true" />
          {t('stills.compare')}
        </Link>
      </p>
    </section>
  )
}
