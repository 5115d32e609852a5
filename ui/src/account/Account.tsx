import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { Typed } from '../kit/fields/Typed'
import { call, codeOf, download } from '../wire/http'
import type { Account as Reply, SetAccount } from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { useMe } from '../wire/hooks/useMe'
import { when } from '../words/words'
import { Password } from './Password'
import { Room } from './Room'
import { Rooms } from './Rooms'
import { Second } from './Second'

/** One's own account: the name, the password, the second factor, and where one is signed in. */
export function Account() {
  const { t } = useTranslation()
  const held = useMe().data?.teacher?.held
  const account = useQuery({ queryKey: ['account'], queryFn: () => call<Reply>('GET', '/account'), staleTime: 0 })
  const { act, problem } = useAct('account', 'me')
  const code = problem ?? (account.isError ? codeOf(account.error) : null)
  if (code === 'sign-in-needed') return <ToSignIn />
  const others = account.data?.signIns.filter((s) => !s.here) ?? []
  return (
    <Rooms room="account">
      {account.isPending && <p role="status">{t('loading')}</p>}
      {held && (
        <p role="status" className="rounded-xl bg-glow-soft p-4 font-semibold text-glow-deep">
          {t('second.asked')}
        </p>
      )}
      <Refusal code={code} />
      {account.data && (
        <>
          <Room title={t('account.you')} text={`${account.data.email} · ${t(`staff.${account.data.role}`)}`}>
            <div className="max-w-md">
              <Typed
                label={t('invitation.name')}
                value={account.data.name}
                limit={80}
                required
                onChange={(name) => void act(() => call('POST', '/account', { name } satisfies SetAccount))}
              />
            </div>
          </Room>
          <Second on={account.data.second ?? false} left={account.data.recoveryLeft ?? 0} />
          <Password second={account.data.second ?? false} />
          <Room title={t('account.file')} text={t('account.fileText')}>
            <Button className="self-start" onClick={() => void act(() => download('/account/file', 'account.zip'))}>
              {t('account.fileGet')}
            </Button>
          </Room>
          <Room title={t('account.signIns')}>
            {others.length > 0 && (
              <Button className="self-start" onClick={() => void act(() => call('DELETE', '/account/sign-ins'))}>
                {t('account.endOthers')}
              </Button>
            )}
            <ul className="divide-y divide-line">
              {account.data.signIns.map((s) => (
                <li key={s.id} className="flex items-center gap-3 py-2.5">
                  <span className="min-w-0 grow">
                    <span className="block truncate font-semibold">{s.device || t('account.someDevice')}</span>
                    <span className="block text-slate">{t('account.since', { when: when(s.madeAt) })}</span>
                  </span>
                  {s.here ? (
                    <span className="text-slate">{t('account.here')}</span>
                  ) : (
                    <Button
                      aria-label={t('account.endThis', { device: s.device })}
                      onClick={() => void act(() => call('DELETE', `/account/sign-ins/${s.id}`))}
                    >
                      {t('boards.signOut')}
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </Room>
        </>
      )}
    </Rooms>
  )
}
