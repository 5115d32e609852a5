import { useQuery } from '@tanstack/react-query'
import { Download, Printer } from 'lucide-react'
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
  const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
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
        <div className="flex flex-wrap gap-3">
          <a
            href={`/api/sessions/${session}/letters.pdf?zone=${zone}`}
            download
            className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist"
          >
            <Download size={17} aria-hidden="true" />
            {t('marking.pdf')}
          </a>
          <Button look="main" onClick={() => print()}>
            <Printer size={17} aria-hidden="true" />
            {t('given.print')}
          </Button>
        </div>
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
