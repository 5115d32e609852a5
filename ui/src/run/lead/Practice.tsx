import { Pause, Play } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../../kit/Button'
import { Confirm } from '../../kit/windows/Confirm'
import { call, codeOf } from '../../wire/http'
import type { Code, Rehearsing } from '../../wire/types.gen'

/** Says that this is a rehearsal; lets the simulated class rest, and throws everything away at the end. */
export function Practice({ session }: { session: string }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [paused, setPaused] = useState(false)
  const [asking, setAsking] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function pause() {
    setProblem(null)
    try {
      await call('POST', `/sessions/${session}/rehearsal`, { paused: !paused } satisfies Rehearsing)
      setPaused(!paused)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <>
      <span className="rounded-lg bg-amber-soft px-2.5 py-1 font-semibold text-amber">{t('run.practice')}</span>
      <Button aria-pressed={paused} onClick={() => void pause()}>
        {paused ? <Play size={17} aria-hidden="true" /> : <Pause size={17} aria-hidden="true" />}
        {t(paused ? 'run.resume' : 'run.pause')}
      </Button>
      <Button look="main" onClick={() => setAsking(true)}>
        {t('run.practiceEnd')}
      </Button>
      {problem && (
        <span role="alert" className="font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </span>
      )}
      <Confirm
        open={asking}
        onOpenChange={setAsking}
        title={t('run.practiceEndTitle')}
        text={t('run.practiceEndText')}
        yes={t('run.practiceEndNow')}
        onYes={async () => {
          await call('DELETE', `/sessions/${session}/rehearsal`)
          void navigate('/boards')
        }}
      />
    </>
  )
}
