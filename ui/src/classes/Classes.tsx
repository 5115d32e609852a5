import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/useTitle'
import { call, codeOf } from '../wire/http'
import type { ClassBook, ClassPage, Code } from '../wire/types.gen'
import { ClassCard } from './ClassCard'
import { NewClass } from './NewClass'

/** One's classes: made from a list, and looked after over the year. */
export function Classes() {
  const { t } = useTranslation()
  useTitle(t('classes.title'))
  const queries = useQueryClient()
  const book = useQuery({ queryKey: ['classes'], queryFn: () => call<ClassBook>('GET', '/classes') })
  const [making, make] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  if (book.isError && codeOf(book.error) === 'sign-in-needed') return <ToSignIn />
  /** Asks the server to change something; what it refuses is said above the classes, and given. */
  async function change(path: string, to: unknown): Promise<Code | null> {
    let refused: Code | null = null
    try {
      await call('POST', path, to)
    } catch (error) {
      refused = codeOf(error)
    }
    setProblem(refused)
    await queries.invalidateQueries({ queryKey: ['classes'] })
    await queries.invalidateQueries({ queryKey: ['boards'] })
    return refused
  }
  const said = problem ?? (book.isError ? codeOf(book.error) : null)
  const card = (page: ClassPage) => <ClassCard key={page.id} page={page} change={change} />
  const away = book.data?.classes.filter((c) => c.archived) ?? []
  return (
    <Page
      title={t('classes.title')}
      action={
        <Button look="main" onClick={() => make(true)}>
          {t('classes.new')}
        </Button>
      }
    >
      {book.isPending && <p role="status">{t('loading')}</p>}
      {said && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${said}`)}
        </p>
      )}
      {book.data?.classes.length === 0 && (
        <p className="rounded-xl border border-dashed border-edge p-8 text-center text-slate">{t('classes.none')}</p>
      )}
      {book.data?.classes.filter((c) => !c.archived).map(card)}
      {away.length > 0 && (
        <details>
          <summary className="cursor-pointer rounded-lg py-2 font-semibold">
            {t('classes.away', { count: away.length })}
          </summary>
          <div className="mt-3 flex flex-col gap-5">{away.map(card)}</div>
        </details>
      )}
      {making && <NewClass onClose={() => make(false)} onMake={(to) => change('/classes', to)} />}
    </Page>
  )
}
