import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Field } from '../kit/fields/Field'
import { call } from '../wire/http'
import type { SetPassword } from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { Room } from './Room'

/** Another password; with a second factor it may be shorter. */
export function Password({ second }: { second: boolean }) {
  const { t } = useTranslation()
  const { act, problem } = useAct('account')
  const [now, setNow] = useState('')
  const [next, setNext] = useState('')
  const [done, setDone] = useState(false)
  async function change() {
    setDone(false)
    if (await act(() => call('POST', '/account/password', { now, next } satisfies SetPassword))) return
    setNow('')
    setNext('')
    setDone(true)
  }
  const wrong = problem && t(`refusal.${problem}`)
  const aboutNow = problem === 'password-wrong' || problem === 'too-many'
  return (
    <Room title={t('account.password')}>
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
          help={t(second ? 'account.passwordHelp' : 'invitation.passwordHelp')}
          value={next}
          onChange={(e) => setNext(e.target.value)}
          problem={aboutNow ? null : wrong}
        />
        <Button type="submit" disabled={!now || !next}>
          {t('account.change')}
        </Button>
        <p role="status" className="font-semibold text-fern empty:hidden">
          {done && t('account.changed')}
        </p>
      </form>
    </Room>
  )
}
