import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Button } from '../../kit/Button'
import { Typed } from '../../kit/Typed'
import { call, codeOf } from '../../wire/http'
import type { Code, Frame, Take, Wording } from '../../wire/types.gen'
import { useWish } from '../useWish'

/** What the frame is called and asks for, in this lesson; and what was changed, taken into the board. */
export function Words({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  const [words, set] = useWish<Wording>({ title: frame.title, prompt: frame.prompt }, (to) => ({
    kind: 'reword',
    reword: { frame: frame.id, ...to },
  }))
  const [said, say] = useState<Code | Take['what'] | null>(null)
  async function take(what: Take['what']) {
    try {
      await call('POST', `/sessions/${session}/take`, { frame: frame.id, what } satisfies Take)
      say(what)
    } catch (error) {
      say(codeOf(error))
    }
  }
  return (
    <div className="flex flex-col gap-3">
      <Typed
        label={t('run.frameTitle')}
        value={words.title}
        limit={120}
        onChange={(title) => set({ ...words, title })}
      />
      <Typed
        label={t('run.frameTask')}
        value={words.prompt}
        limit={600}
        rows={2}
        onChange={(prompt) => set({ ...words, prompt })}
      />
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">{t('run.take')}</legend>
        <div className="flex flex-wrap gap-1.5">
          {(['words', 'use', 'layout'] as const).map((what) => (
            <Button key={what} onClick={() => void take(what)}>
              {t(`run.take_${what}`)}
            </Button>
          ))}
        </div>
        <p role="status" className="mt-1 text-sm text-slate">
          {said && (said === 'words' || said === 'use' || said === 'layout' ? t('run.taken') : t(`refusal.${said}`))}
        </p>
      </fieldset>
    </div>
  )
}
