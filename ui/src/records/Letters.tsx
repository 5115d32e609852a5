import { useQuery } from '@tanstack/react-query'
import { Printer } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Letter } from '../letter/Letter'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Letters as Reply } from '../wire/types.gen'

/** What goes back to each student, one after the other, to be printed. */
export function Letters() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  useTitle(t('marking.letters'))
  const query = useQuery({
    queryKey: ['letters', session],
    queryFn: () => call<Reply>('GET', `/sessions/${session}/letters`),
    staleTime: 0,
  })
  const problem = query.isError ? codeOf(query.error) : null
  if (problem === 'sign-in-needed') return <ToSignIn />
  return (
    <Page
      title={t('marking.letters')}
      back={{ to: `/records/${session}`, name: t('marking.toRecord') }}
      action={
        <Button look="main" onClick={() => print()}>
          <Printer size={17} aria-hidden="true" />
          {t('given.print')}
        </Button>
      }
    >
      <Refusal code={problem} />
      {query.isPending && <p role="status">{t('loading')}</p>}
      {query.data?.letters.map((letter, i) => (
        <div
          key={i}
          className="mx-auto w-full max-w-3xl border-t border-line pt-6 print:break-after-page print:border-0"
        >
          <Letter letter={letter} level={2} />
        </div>
      ))}
    </Page>
  )
}
