import { useEffect, useRef, useState, type FormEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../kit/Button'
import { Field } from '../kit/fields/Field'
import { call, codeOf } from '../wire/http'
import { useAsked } from '../wire/hooks/useAsked'
import type { Code, JoinFound, Me, Seat } from '../wire/types.gen'
import { AtDoor } from './AtDoor'
import { ChooseName } from './ChooseName'
import { Welcome } from './Welcome'
import { useTitle } from '../kit/hooks/useTitle'
import { speak } from '../words/words'

/** The start page: the code, then the name, and in. */
export function Start() {
  const { t } = useTranslation()
  useTitle(t('join.title'))
  const { code: linked } = useParams()
  const navigate = useNavigate()
  const [code, setCode] = useState(linked ?? '')
  const [name, setName] = useState('')
  const [checked, setFound] = useState<JoinFound | null>(null)
  const [ownCode, setOwnCode] = useState(linked === undefined)
  const [refused, setProblem] = useState<Code | null>(null)
  /** They have knocked at the closed door. */
  const [waits, setWaits] = useState(false)
  const [busy, setBusy] = useState(false)
  const codeField = useRef<HTMLInputElement>(null)
  const nameField = useRef<HTMLInputElement>(null)
  const me = useAsked(() => call<Me>('GET', '/me'), 'me')
  const seat = me.data?.seat
  // Who comes by the link or the QR code goes straight on to the name.
  const byLink = useAsked(
    linked === undefined ? null : () => call<JoinFound>('POST', '/join/check', { code: linked }),
    `join ${linked ?? ''}`,
  )
  const found = checked ?? (ownCode ? null : byLink.data)
  const problem = refused ?? (ownCode ? null : (byLink.problem ?? null))

  async function attempt<Reply>(path: string, body: unknown, then: (reply: Reply) => void) {
    setBusy(true)
    setProblem(null)
    try {
      then(await call<Reply>('POST', path, body))
    } catch (error) {
      setProblem(codeOf(error))
    } finally {
      setBusy(false)
    }
  }

  const check = (typed: string) => attempt<JoinFound>('/join/check', { code: typed }, setFound)
  const enter = () =>
    attempt<Seat>('/join', { code, name }, (s) => {
      void navigate(`/lesson/${s.session}`)
    })
  /** Teaching without an account, for today. */
  const begin = () => void attempt('/guest', {}, () => void navigate('/boards'))
  const knock = () => attempt('/join/knock', { code, name }, () => setWaits(true))
  const leave = () => attempt('/leave', {}, me.again)

  // The class's language, once the lesson is known.
  const language = found?.language
  useEffect(() => {
    if (language) void speak(language)
  }, [language])

  // The first thing to do has the focus.
  useEffect(() => {
    if (found) nameField.current?.focus()
    else codeField.current?.focus()
  }, [found])

  const waited = (to: Code | null) => {
    setWaits(false)
    setProblem(to)
  }

  function submit(e: FormEvent) {
    e.preventDefault()
    void (!found ? check(code) : knocks ? knock() : enter())
  }

  const said = problem && t(`refusal.${problem}`)
  /** The door is closed, or the teacher looks at this name first: what is left is to knock. */
  const knocks = refused === 'door-closed' || refused === 'not-let-in' || refused === 'name-waits'
  const aboutName = problem?.startsWith('name')
  return (
    <Welcome title={t('join.title')}>
      {waits && (
        <AtDoor code={code} name={name} onSeat={(s) => void navigate(`/lesson/${s.session}`)} onRefused={waited} />
      )}
      <form hidden={waits} onSubmit={submit} className="flex flex-col items-center gap-5 [&[hidden]]:hidden" noValidate>
        {found ? (
          <>
            <p className="text-lg font-semibold">
              {found.className ? t('join.lessonWithClass', found) : t('join.lesson', found)}
            </p>
            {found.names ? (
              <ChooseName names={found.names} value={name} problem={said} onChange={setName} />
            ) : (
              <Field
                ref={nameField}
                label={t('join.name')}
                help={t('join.nameHelp')}
                problem={said}
                value={name}
                onChange={(e) => setName(e.target.value)}
                autoComplete="nickname"
                maxLength={200}
                className="text-xl"
              />
            )}
            <Button type="submit" look="main" size="large" disabled={busy}>
              {t(knocks ? 'join.knock' : 'join.enter')}
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                setFound(null)
                setOwnCode(true)
                setProblem(null)
              }}
            >
              {t('join.otherCode')}
            </Button>
          </>
        ) : (
          <>
            <Field
              ref={codeField}
              label={t('join.code')}
              help={t('join.codeHelp')}
              problem={aboutName ? null : said}
              value={code}
              onChange={(e) => setCode(e.target.value)}
              autoComplete="off"
              autoCapitalize="characters"
              spellCheck={false}
              maxLength={40}
              className="text-center font-display text-4xl font-bold tracking-[0.18em] uppercase"
            />
            <Button type="submit" look="main" size="large" disabled={busy}>
              {t('join.next')}
            </Button>
          </>
        )}
      </form>
      {seat && !seat.ended && !found && (
        <aside className="mt-8 rounded-2xl border border-line bg-paper p-4">
          <p className="mb-3">{t('join.back', seat)}</p>
          <div className="flex flex-wrap justify-center gap-2">
            <Button look="main" onClick={() => void navigate(`/lesson/${seat.session}`)}>
              {t('join.continue', seat)}
            </Button>
            <Button onClick={() => void leave()}>{t('join.notMe')}</Button>
          </div>
        </aside>
      )}
      {!found && !waits && (
        <p className="mt-6 flex flex-col items-center gap-3">
          <Link to="/card" className="text-dusk underline underline-offset-4">
            {t('card.open')}
          </Link>
          {me.data?.house.guests && !me.data.teacher && (
            <button type="button" disabled={busy} onClick={begin} className="text-dusk underline underline-offset-4">
              {t('guest.try')}
            </button>
          )}
        </p>
      )}
    </Welcome>
  )
}
