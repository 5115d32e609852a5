import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Entry } from '../kit/fields/Entry'
import { Field } from '../kit/fields/Field'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Code, ResetPassword } from '../wire/types.gen'

/** A link to a new password, sent to one's own address. */
export function Forgotten() {
  const { t } = useTranslation()
  useTitle(t('forgotten.title'))
  const [email, setEmail] = useState('')
  const [sent, setSent] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function ask() {
    setProblem(null)
    try {
      await call('POST', '/reset', { email } satisfies ResetPassword)
      setSent(true)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Entry>
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          void ask()
        }}
      >
        <h1 className="text-2xl">{t('forgotten.title')}</h1>
        {sent ? (
          <p role="status">{t('forgotten.sent')}</p>
        ) : (
          <>
            <Field
              label={t('signIn.email')}
              type="email"
              autoComplete="username"
              value={email}
              onChange={(e) => setEmail(e.target.value)}
              problem={problem && t(`refusal.${problem}`)}
            />
            <Button type="submit" look="main" size="large" disabled={!email.trim()}>
              {t('forgotten.send')}
            </Button>
          </>
        )}
        <Link to="/sign-in" className="text-center text-dusk underline underline-offset-4">
          {t('signIn.title')}
        </Link>
      </form>
    </Entry>
  )
}
