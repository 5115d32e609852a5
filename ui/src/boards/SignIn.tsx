import { useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Entry } from '../kit/fields/Entry'
import { Field } from '../kit/fields/Field'
import { call, codeOf } from '../wire/http'
import type { Code, Me, SignIn as Ask } from '../wire/types.gen'
import { useMe } from '../wire/hooks/useMe'
import { useTitle } from '../kit/hooks/useTitle'

/** The teacher's way in. */
export function SignIn() {
  const { t } = useTranslation()
  useTitle(t('signIn.title'))
  const navigate = useNavigate()
  const from = (useLocation().state as { from?: string } | null)?.from ?? '/boards'
  const queries = useQueryClient()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState<Code | null>(null)
  const [busy, setBusy] = useState(false)
  /** The account has a second factor: its code is asked for too. */
  const [second, askSecond] = useState(false)
  const [code, setCode] = useState('')
  const me = useMe()

  async function begin() {
    setBusy(true)
    setProblem(null)
    try {
      await call<Me>('POST', '/guest', {})
      queries.clear()
      void navigate('/boards', { replace: true })
    } catch (error) {
      setProblem(codeOf(error))
      setBusy(false)
    }
  }

  async function submit(e: FormEvent) {
    e.preventDefault()
    setBusy(true)
    setProblem(null)
    try {
      await call<Me>('POST', '/sign-in', { email, password, ...(second && { code }) } satisfies Ask)
      queries.clear()
      void navigate(from, { replace: true })
    } catch (error) {
      const refused = codeOf(error)
      // Asking for the code is no fault.
      if (refused === 'second-needed') askSecond(true)
      setProblem(refused === 'second-needed' ? null : refused)
      setBusy(false)
    }
  }

  return (
    <Entry>
      <form onSubmit={(e) => void submit(e)} className="flex flex-col gap-4" noValidate>
        <h1 className="text-2xl">{t('signIn.title')}</h1>
        <Field
          label={t('signIn.email')}
          type="email"
          autoComplete="username"
          value={email}
          onChange={(e) => setEmail(e.target.value)}
        />
        <Field
          label={t('signIn.password')}
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          problem={problem && problem !== 'second-wrong' ? t(`refusal.${problem}`) : null}
        />
        {second && (
          <Field
            ref={(field) => {
              if (field && !code) field.focus()
            }}
            label={t('second.code')}
            help={t('second.orRecovery')}
            autoComplete="one-time-code"
            value={code}
            onChange={(e) => setCode(e.target.value)}
            problem={problem === 'second-wrong' ? t(`refusal.${problem}`) : null}
          />
        )}
        <Button type="submit" look="main" size="large" disabled={busy}>
          {t('signIn.enter')}
        </Button>
        {me.data?.house.mail && (
          <Link to="/forgotten" className="text-center text-dusk underline underline-offset-4">
            {t('signIn.forgotten')}
          </Link>
        )}
        {me.data?.house.guests && !me.data.teacher && (
          <Button disabled={busy} onClick={() => void begin()}>
            {t('guest.begin')}
          </Button>
        )}
        <Link to="/" className="text-center text-dusk underline underline-offset-4">
          {t('signIn.student')}
        </Link>
      </form>
    </Entry>
  )
}
