import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Field } from '../kit/Field'
import { Page } from '../kit/Page'
import { ToSignIn } from '../kit/ToSignIn'
import { Typed } from '../kit/Typed'
import { useTitle } from '../kit/useTitle'
import { call, codeOf } from '../wire/http'
import type { Account as Reply, Code, SetAccount, SetPassword } from '../wire/types.gen'
import { when } from '../words/words'

/** One's own account: the name, the password, and where one is signed in. */
export function Account() {
  const { t } = useTranslation()
  useTitle(t('account.title'))
  const queries = useQueryClient()
  const account = useQuery({ queryKey: ['account'], queryFn: () => call<Reply>('GET', '/account'), staleTime: 0 })
  const [problem, setProblem] = useState<Code | null>(null)
  if (account.isError && codeOf(account.error) === 'sign-in-needed') return <ToSignIn />
  async function attempt(work: () => Promise<unknown>) {
    setProblem(null)
    try {
      await work()
    } catch (error) {
      setProblem(codeOf(error))
    }
    await queries.invalidateQueries({ queryKey: ['account'] })
    await queries.invalidateQueries({ queryKey: ['me'] })
  }
  const others = account.data?.signIns.filter((s) => !s.here) ?? []
  return (
    <Page title={t('account.title')}>
      {account.isPending && <p role="status">{t('loading')}</p>}
      {(problem ?? (account.isError ? codeOf(account.error) : null)) && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${problem ?? codeOf(account.error)}`)}
        </p>
      )}
      {account.data && (
        <>
          <section aria-labelledby="name" className="flex flex-col gap-2">
            <h2 id="name" className="text-xl">
              {t('account.you')}
            </h2>
            <p className="text-slate">
              {account.data.email} · {t(`staff.${account.data.role}`)}
            </p>
            <div className="max-w-md">
              <Typed
                label={t('invitation.name')}
                value={account.data.name}
                limit={80}
                required
                onChange={(name) => void attempt(() => call('POST', '/account', { name } satisfies SetAccount))}
              />
            </div>
          </section>
          <Password />
          <section aria-labelledby="sign-ins">
            <div className="mb-2 flex flex-wrap items-center gap-3">
              <h2 id="sign-ins" className="grow text-xl">
                {t('account.signIns')}
              </h2>
              {others.length > 0 && (
                <Button onClick={() => void attempt(() => call('DELETE', '/account/sign-ins'))}>
                  {t('account.endOthers')}
                </Button>
              )}
            </div>
            <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
              {account.data.signIns.map((s) => (
                <li key={s.id} className="flex items-center gap-3 px-4 py-2.5">
                  <span className="min-w-0 grow">
                    <span className="block truncate font-semibold">{s.device || t('account.someDevice')}</span>
                    <span className="block text-slate">{t('account.since', { when: when(s.madeAt) })}</span>
                  </span>
                  {s.here ? (
                    <span className="text-slate">{t('account.here')}</span>
                  ) : (
                    <Button
                      aria-label={t('account.endThis', { device: s.device })}
                      onClick={() => void attempt(() => call('DELETE', `/account/sign-ins/${s.id}`))}
                    >
                      {t('boards.signOut')}
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </section>
        </>
      )}
    </Page>
  )
}

function Password() {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [now, setNow] = useState('')
  const [next, setNext] = useState('')
  const [said, say] = useState<Code | 'done' | null>(null)
  async function change() {
    say(null)
    try {
      await call('POST', '/account/password', { now, next } satisfies SetPassword)
      setNow('')
      setNext('')
      say('done')
      await queries.invalidateQueries({ queryKey: ['account'] })
    } catch (error) {
      say(codeOf(error))
    }
  }
  const wrong = said && said !== 'done' ? t(`refusal.${said}`) : null
  const aboutNow = said === 'password-wrong' || said === 'too-many'
  return (
    <section aria-labelledby="password">
      <h2 id="password" className="mb-2 text-xl">
        {t('account.password')}
      </h2>
      <form
        className="flex max-w-md flex-col gap-3"
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          void change()
        }}
      >
        <Field
          label={t('account.now')}
          type="password"
          autoComplete="current-password"
          value={now}
          onChange={(e) => setNow(e.target.value)}
          problem={aboutNow ? wrong : null}
        />
        <Field
          label={t('account.next')}
          type="password"
          autoComplete="new-password"
          help={t('invitation.passwordHelp')}
          value={next}
          onChange={(e) => setNext(e.target.value)}
          problem={aboutNow ? null : wrong}
        />
        <Button type="submit" disabled={!now || !next}>
          {t('account.change')}
        </Button>
        <p role="status" className="font-semibold text-fern empty:hidden">
          {said === 'done' && t('account.changed')}
        </p>
      </form>
    </section>
  )
}
