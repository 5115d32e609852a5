import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Field } from '../kit/fields/Field'
import { Refusal } from '../kit/Refusal'
import { call } from '../wire/http'
import type { NewSecond, Recovery, SetSecond } from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { Room } from './Room'

/** The second factor: set up with an app that makes time codes, and taken away again. */
export function Second({ on, left }: { on: boolean; left: number }) {
  const { t } = useTranslation()
  const { act, problem } = useAct('account', 'me')
  const [made, setMade] = useState<NewSecond | null>(null)
  const [codes, setCodes] = useState<string[] | null>(null)
  const [taking, take] = useState(false)
  const begin = () => act(async () => setMade(await call<NewSecond>('POST', '/account/second/new', {})))
  const confirm = (now: string, code: string) =>
    act(async () => {
      const ask: SetSecond = { now, code, secret: made!.secret }
      setCodes((await call<Recovery>('POST', '/account/second', ask)).codes)
      setMade(null)
    })
  const drop = async (now: string, code: string) => {
    if (!(await act(() => call('POST', '/account/second', { now, code } satisfies SetSecond)))) take(false)
  }
  return (
    <Room title={t('second.title')} text={t('second.text')}>
      {codes && (
        <div role="status" className="rounded-xl border border-line bg-snow p-4">
          <p className="mb-2 font-semibold">{t('second.codes')}</p>
          <ul className="grid w-fit grid-cols-2 gap-x-8 gap-y-1 font-mono text-lg">
            {codes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <Button className="mt-3" onClick={() => setCodes(null)}>
            {t('second.noted')}
          </Button>
        </div>
      )}
      {on ? (
        <>
          <p className="font-semibold text-fern">{t('second.on', { count: left })}</p>
          <div className="flex flex-wrap gap-2">
            {!made && !taking && (
              <>
                <Button onClick={() => void begin()}>{t('second.anew')}</Button>
                <Button onClick={() => take(true)}>{t('second.off')}</Button>
              </>
            )}
          </div>
        </>
      ) : (
        !made && (
          <Button className="self-start" look="main" onClick={() => void begin()}>
            {t('second.begin')}
          </Button>
        )
      )}
      {made && (
        <div className="flex flex-wrap items-start gap-5">
          <svg
            role="img"
            aria-label={t('second.qr')}
            viewBox={`0 0 ${made.units} ${made.units}`}
            shapeRendering="crispEdges"
            className="size-48 rounded-lg border border-line bg-white"
          >
            <path d={made.qr} className="fill-black" />
          </svg>
          <div className="min-w-64 grow basis-64">
            <p className="mb-2">{t('second.scan')}</p>
            <p className="mb-4 font-mono break-all select-all">{made.secret.match(/.{1,4}/g)?.join(' ')}</p>
            <Confirm yes={t('second.confirm')} onYes={confirm} onNo={() => setMade(null)} />
          </div>
        </div>
      )}
      {taking && <Confirm yes={t('second.off')} onYes={drop} onNo={() => take(false)} />}
      <Refusal code={problem} />
    </Room>
  )
}

type Props = { yes: string; onYes: (now: string, code: string) => unknown; onNo: () => void }

/** Asks for the password and a code. */
function Confirm({ yes, onYes, onNo }: Props) {
  const { t } = useTranslation()
  const [now, setNow] = useState('')
  const [code, setCode] = useState('')
  return (
    <form
      className="flex max-w-md flex-col gap-3"
      noValidate
      onSubmit={(e) => {
        e.preventDefault()
        onYes(now, code)
      }}
    >
      <Field
        label={t('second.code')}
        inputMode="numeric"
        autoComplete="one-time-code"
        value={code}
        onChange={(e) => setCode(e.target.value)}
      />
      <Field
        label={t('account.now')}
        type="password"
        autoComplete="current-password"
        value={now}
        onChange={(e) => setNow(e.target.value)}
      />
      <div className="flex gap-2">
        <Button type="submit" look="main" disabled={!now || !code}>
          {yes}
        </Button>
        <Button onClick={onNo}>{t('cancel')}</Button>
      </div>
    </form>
  )
}
