import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Entry } from '../kit/fields/Entry'
import { Field } from '../kit/fields/Field'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Accept, Code, Invited, InvitationToken, Me } from '../wire/types.gen'

/** What the server refuses about each field; everything else is said below all of them. */
const about: Record<'name' | 'email' | 'password', Code[]> = {
  name: ['name-empty', 'name-too-long', 'name-control'],
  email: ['email-bad', 'email-taken'],
  password: ['password-short', 'password-common'],
}

/** Where a link leads by which somebody makes their account, or chooses a new password. */
export function Invitation() {
  const { t } = useTranslation()
  useTitle(t('invitation.title'))
  const token = location.hash.slice(1)
  const invited = useQuery({
    queryKey: ['invitation', token],
    queryFn: () => call<Invited>('POST', '/invitation/check', { token } satisfies InvitationToken),
    retry: false,
    gcTime: 0,
  })
  return (
    <Entry>
      {invited.isPending && <p role="status">{t('loading')}</p>}
      {invited.isError && (
        <>
          <h1 className="text-2xl">{t(`refusal.${codeOf(invited.error)}`)}</h1>
          <Link to="/sign-in" className="text-dusk underline underline-offset-4">
            {t('signIn.title')}
          </Link>
        </>
      )}
      {invited.data && <Form token={token} invited={invited.data} />}
    </Entry>
  )
}

function Form({ token, invited }: { token: string; invited: Invited }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [name, setName] = useState('')
  const [email, setEmail] = useState(invited.email)
  const [password, setPassword] = useState('')
  const accept = useMutation({
    mutationFn: () => call<Me>('POST', '/invitation/accept', { token, name, email, password } satisfies Accept),
    onSuccess: () => {
      queries.clear()
      void navigate('/boards', { replace: true })
    },
    onError: (error) => {
      // The password is set; a link alone does not open an account with a second factor.
      if (codeOf(error) === 'second-needed') void navigate('/sign-in', { replace: true })
    },
  })
  const code = accept.isError ? codeOf(accept.error) : null
  const problem = (field: keyof typeof about) => (code && about[field].includes(code) ? t(`refusal.${code}`) : null)
  const elsewhere = code && !Object.values(about).flat().includes(code)
  return (
    <form
      className="flex flex-col gap-4"
      noValidate
      onSubmit={(e: FormEvent) => {
        e.preventDefault()
        accept.mutate()
      }}
    >
      <h1 className="text-2xl">{t(invited.newPassword ? 'invitation.newPassword' : 'invitation.title')}</h1>
      <p className="text-slate">
        {invited.newPassword ? t('invitation.for', { name: invited.name }) : t(`invitation.as_${invited.role}`)}
      </p>
      {!invited.newPassword && (
        <Field
          label={t('invitation.name')}
          autoComplete="name"
          value={name}
          onChange={(e) => setName(e.target.value)}
          problem={problem('name')}
        />
      )}
      <Field
        label={t('signIn.email')}
        type="email"
        autoComplete="username"
        readOnly={invited.email !== ''}
        value={email}
        onChange={(e) => setEmail(e.target.value)}
        problem={problem('email')}
      />
      <Field
        label={t('signIn.password')}
        type="password"
        autoComplete="new-password"
        help={t('invitation.passwordHelp')}
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        problem={problem('password')}
      />
      {elsewhere && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${code}`)}
        </p>
      )}
      <Button type="submit" look="main" size="large" disabled={accept.isPending}>
        {t(invited.newPassword ? 'invitation.setPassword' : 'invitation.make')}
      </Button>
    </form>
  )
}
