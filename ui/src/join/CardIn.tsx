import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation, useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Field } from '../kit/fields/Field'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import { useAsked } from '../wire/hooks/useAsked'
import type { ByCard, CameIn, Code, GivenLessons } from '../wire/types.gen'
import { Welcome } from './Welcome'

/** In with one's own name card, scanned or typed: whoever has it is themselves on any device. */
export function CardIn() {
  // Whoever scans another card while this page is open is somebody else.
  const { hash } = useLocation()
  return <Card key={hash} scanned={decodeURIComponent(hash.slice(1)).slice(0, 40)} />
}

/** What was scanned stood behind the #, where no server sees it, and goes in at once. */
function Card({ scanned }: { scanned: string }) {
  const { t, i18n } = useTranslation()
  useTitle(t('card.title'))
  const navigate = useNavigate()
  const [card, setCard] = useState(scanned)
  const [typed, setTyped] = useState<CameIn | null>(null)
  const [refused, setProblem] = useState<Code | null>(null)
  const [busy, setBusy] = useState(false)
  const [given, setGiven] = useState<GivenLessons | null>(null)
  const byScan = useAsked(
    scanned ? () => call<CameIn>('POST', '/join/card', { card: scanned } satisfies ByCard) : null,
    scanned,
  )
  const came = typed ?? byScan.data
  const lessons = came?.lessons ?? []
  const problem = refused ?? (typed ? null : byScan.problem)

  useEffect(() => {
    if (location.hash) history.replaceState(history.state, '', location.pathname)
    if (came?.seat) void navigate(`/lesson/${came.seat.session}`)
  }, [came, navigate])

  async function enter(session?: string) {
    setBusy(true)
    setProblem(null)
    try {
      setTyped(await call<CameIn>('POST', '/join/card', { card, session } satisfies ByCard))
    } catch (error) {
      setProblem(codeOf(error))
    }
    setBusy(false)
  }

  /** What came back of one's lessons; of one of them it is opened. */
  async function back(session?: string) {
    setBusy(true)
    setProblem(null)
    try {
      const found = await call<GivenLessons>('POST', '/given', { card, session } satisfies ByCard)
      if (session) void navigate(`/given/${session}`)
      else setGiven(found)
    } catch (error) {
      setProblem(codeOf(error))
    }
    setBusy(false)
  }

  if (given)
    return (
      <Welcome title={t('card.givenWhich')}>
        {given.lessons.length === 0 && <p role="status">{t('card.givenNone')}</p>}
        {problem && <p role="alert">{t(`refusal.${problem}`)}</p>}
        <ul className="flex flex-col gap-2">
          {given.lessons.map((l) => (
            <li key={l.session}>
              <Button className="w-full" size="large" disabled={busy} onClick={() => void back(l.session)}>
                <bdi className="min-w-0 truncate">{l.title}</bdi>
                <span className="text-base font-normal">
                  {new Intl.DateTimeFormat(i18n.language).format(new Date(l.at))}
                </span>
              </Button>
            </li>
          ))}
        </ul>
      </Welcome>
    )
  return (
    <Welcome title={t('card.title')}>
      {lessons.length > 0 ? (
        <>
          <p className="mb-3 text-lg font-semibold">{t('card.which')}</p>
          <ul className="flex flex-col gap-2">
            {lessons.map((l) => (
              <li key={l.session}>
                <Button className="w-full" size="large" disabled={busy} onClick={() => void enter(l.session)}>
                  <bdi className="min-w-0 truncate">{l.title}</bdi>
                </Button>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <form
          className="flex flex-col items-center gap-5"
          noValidate
          onSubmit={(e) => {
            e.preventDefault()
            void enter()
          }}
        >
          <Field
            label={t('card.code')}
            help={t('card.help')}
            problem={problem && t(`refusal.${problem}`)}
            value={card}
            onChange={(e) => setCard(e.target.value)}
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            maxLength={40}
            className="text-center font-display text-3xl font-bold tracking-[0.12em] uppercase"
          />
          <Button type="submit" look="main" size="large" disabled={busy}>
            {t(problem === 'no-lesson-now' ? 'card.again' : 'join.enter')}
          </Button>
          {card.trim() !== '' && (
            <Button disabled={busy} onClick={() => void back()}>
              {t('card.given')}
            </Button>
          )}
        </form>
      )}
    </Welcome>
  )
}
