import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Mails } from '../wire/types.gen'
import { when } from '../words/words'

const EVERY_MS = 3000

/** The mailbox of the demo: whatever the program sends comes here. */
export function Mailbox() {
  const { t } = useTranslation()
  useTitle(t('mailbox.title'))
  const mails = useQuery({
    queryKey: ['mailbox'],
    queryFn: () => call<Mails>('GET', '/mailbox'),
    refetchInterval: EVERY_MS,
  })
  return (
    <Page title={t('mailbox.title')}>
      <p className="text-slate">{t('mailbox.text')}</p>
      <Refusal code={mails.isError ? codeOf(mails.error) : null} />
      {mails.data?.letters.length === 0 && (
        <p className="rounded-xl border border-dashed border-edge p-8 text-center text-slate">{t('mailbox.none')}</p>
      )}
      <ul className="flex flex-col gap-4">
        {mails.data?.letters.map((m) => (
          <li key={m.at} className="rounded-2xl border border-line bg-paper p-5">
            <h2 className="text-lg">{m.subject}</h2>
            <p className="mb-3 text-slate">
              {t('mailbox.to', { to: m.to })} · {when(m.at)}
            </p>
            <p className="break-words whitespace-pre-wrap">
              {m.body.split(/(https?:\/\/\S+)/).map((part, i) =>
                i % 2 ? (
                  <a key={i} href={part} className="text-dusk underline underline-offset-4">
                    {part}
                  </a>
                ) : (
                  part
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </Page>
  )
}
