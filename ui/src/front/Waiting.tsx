import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Logo } from '../kit/Logo'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Code, FrontStands } from '../wire/types.gen'

const ASKS_MS = 2000

/** A screen that waits: it shows a code, and goes to the lesson of the teacher who types it. */
export function Waiting({ gone = false }: { gone?: boolean }) {
  const { t } = useTranslation()
  useTitle(t('front.title'))
  const navigate = useNavigate()
  const [code, setCode] = useState<string | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  const [begun, begin] = useState(!gone)
  useEffect(() => {
    if (!begun) return
    let there = true
    let timer = 0
    let waits = false
    async function ask() {
      try {
        const stands = await call<FrontStands>(waits ? 'GET' : 'POST', '/front', waits ? undefined : {})
        if (!there) return
        setProblem(null)
        if (stands.session) return void navigate(`/front/${stands.session}`, { replace: true })
        waits = true
        setCode(stands.code ?? null)
      } catch (error) {
        if (!there) return
        // Its time is over: it asks for a new code.
        if (codeOf(error) === 'front-gone') waits = false
        else setProblem(codeOf(error))
      }
      timer = window.setTimeout(() => void ask(), ASKS_MS)
    }
    void ask()
    return () => {
      there = false
      clearTimeout(timer)
    }
  }, [begun, navigate])
  return (
    <main className="grid min-h-dvh place-items-center bg-paper p-6 text-center">
      <div className="flex flex-col items-center gap-5">
        <Logo className="h-12" />
        <h1 className="text-3xl">{t('front.title')}</h1>
        {!begun ? (
          <>
            <p className="text-xl text-slate">{t('refusal.front-gone')}</p>
            <Button look="main" size="large" onClick={() => begin(true)}>
              {t('front.newCode')}
            </Button>
          </>
        ) : (
          <>
            <p className="max-w-2xl text-2xl text-slate">{t('front.waiting')}</p>
            <p
              className="min-h-[1em] font-display text-[clamp(5rem,20vw,15rem)] leading-none font-bold tracking-[0.1em]"
              data-part="front-code"
            >
              {code}
            </p>
            <p role="status" className="text-slate">
              {problem ? t(`refusal.${problem}`) : t('front.waitingText')}
            </p>
          </>
        )}
      </div>
    </main>
  )
}
