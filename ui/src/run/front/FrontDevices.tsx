import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Field } from '../../kit/fields/Field'
import { call, codeOf } from '../../wire/http'
import type { Code } from '../../wire/types.gen'

/** Brings the lesson to the screen of another computer, by the code that it shows, and takes it off again. */
export function FrontDevices({ session, count }: { session: string; count: number }) {
  const { t } = useTranslation()
  const [code, setCode] = useState('')
  const [problem, setProblem] = useState<Code | null>(null)
  const [done, setDone] = useState(false)
  async function attempt(does: () => Promise<void>, then: () => void) {
    setProblem(null)
    setDone(false)
    try {
      await does()
      then()
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  const connect = () =>
    attempt(
      () => call('POST', `/sessions/${session}/fronts`, { code }),
      () => {
        setCode('')
        setDone(true)
      },
    )
  const takeOff = () =>
    attempt(
      () => call('DELETE', `/sessions/${session}/fronts`),
      () => undefined,
    )
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        void connect()
      }}
    >
      <div className="flex items-start gap-2">
        <Field
          label={t('front.code')}
          help={t('front.codeHelp', { address: `${location.host}/front` })}
          problem={problem && t(`refusal.${problem}`)}
          value={code}
          onChange={(e) => setCode(e.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          className="font-display tracking-[0.15em] uppercase"
        />
        <Button type="submit" className="mt-8 min-h-11" disabled={!code.trim()}>
          {t('front.connect')}
        </Button>
      </div>
      <p role="status" className="flex flex-wrap items-center gap-3 text-slate">
        {done ? t('front.connected') : t('front.on', { count })}
        {count > 0 && (
          <Button look="quiet" onClick={() => void takeOff()}>
            {t('front.takeOff')}
          </Button>
        )}
      </p>
    </form>
  )
}
