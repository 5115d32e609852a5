import { useQuery } from '@tanstack/react-query'
import { Check } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call, codeOf } from '../../wire/http'
import type { Code, Difference, Differences } from '../../wire/types.gen'
import { Button } from '../Button'

const keyOf = ({ what, frame }: Difference) => `${what} ${frame ?? ''}`

/** What was changed in a lesson, and is taken into its board one by one. */
export function Changes({ session }: { session: string }) {
  const { t } = useTranslation()
  const [taken, setTaken] = useState<Difference[]>([])
  const [refused, refuse] = useState<Code | null>(null)
  const query = useQuery({
    queryKey: ['differences', session],
    queryFn: () => call<Differences>('GET', `/sessions/${session}/differences`),
    staleTime: 0,
    gcTime: 0,
  })
  async function take(difference: Difference) {
    try {
      await call('POST', `/sessions/${session}/take`, difference)
      refuse(null)
      setTaken([...taken, difference])
      await query.refetch()
    } catch (error) {
      refuse(codeOf(error))
    }
  }
  if (query.isError) return <p role="alert">{t(`refusal.${codeOf(query.error)}`)}</p>
  if (!query.data) return <p role="status">{t('loading')}</p>
  const left = new Set(query.data.differences.map(keyOf))
  // What was taken stays in the list, with its sign, unless it was changed again.
  const done = taken.filter((d) => !left.has(keyOf(d)))
  const list = [...done, ...query.data.differences]
  if (list.length === 0) return <p className="text-slate">{t('rework.none')}</p>
  return (
    <div>
      <p className="mb-3 text-slate">{t('rework.changesText')}</p>
      <ul className="flex flex-col divide-y divide-line">
        {list.map((d) => (
          <li key={keyOf(d)} className="flex items-center gap-3 py-2">
            <span className="min-w-0 grow">
              {d.what !== 'order' && (
                <span className="block truncate font-semibold" dir="auto">
                  {d.title || t('rework.untitled')}
                </span>
              )}
              <span className="block text-slate">{t(`rework.what_${d.what}`)}</span>
            </span>
            {done.includes(d) ? (
              <span className="inline-flex min-h-10 items-center gap-1.5 font-semibold text-fern">
                <Check size={17} aria-hidden="true" />
                {t('rework.taken')}
              </span>
            ) : (
              <Button
                aria-label={t('rework.takeThis', {
                  title: d.title || t('rework.untitled'),
                  what: t(`rework.what_${d.what}`),
                })}
                onClick={() => void take(d)}
              >
                {t('rework.take')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <p role="alert" className="mt-2 text-rose">
        {refused && t(`refusal.${refused}`)}
      </p>
    </div>
  )
}
