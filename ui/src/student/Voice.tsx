import { Check, Hand, MessageCircleQuestionMark } from 'lucide-react'
import { Suspense, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../kit/part'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'

// A window: only who asks needs it.
const Questions = part(() => import('./Questions'))

/** What a student says beside the work, with one tap each: done, help, and questions. */
export default function Voice({ frame }: { frame: string }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const { own, shared } = useLessonState((s) => s.said)
  const [asking, ask] = useState(false)
  if (!own || !shared) return null
  const done = own.done.includes(frame)
  const called = own.help !== 'no'
  const look = (on: boolean) =>
    `grid size-10 shrink-0 place-items-center rounded-lg border ${on ? 'border-dusk bg-dusk text-paper' : 'border-edge bg-paper hover:bg-mist'}`
  const questions = shared.questions.length
  return (
    <span className="flex items-center gap-1.5 turned:flex-col" data-part="voice">
      <button
        type="button"
        aria-pressed={done}
        aria-label={t('voice.done')}
        title={t('voice.done')}
        className={look(done)}
        onClick={() => void lesson.say({ kind: 'done', done: { frame, yes: !done } })}
      >
        <Check size={20} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-pressed={called}
        aria-label={t('voice.help')}
        title={t('voice.help')}
        className={look(called)}
        onClick={() => void lesson.say({ kind: 'help', help: { yes: !called } })}
      >
        <Hand size={20} aria-hidden="true" />
      </button>
      {!(shared.off && own.questions.length === 0 && questions === 0) && (
        <button
          type="button"
          aria-label={t('voice.questions')}
          title={t('voice.questions')}
          className={look(false)}
          onClick={() => ask(true)}
        >
          <MessageCircleQuestionMark size={20} aria-hidden="true" />
        </button>
      )}
      {asking && (
        <Suspense fallback={null}>
          <Questions own={own} shared={shared} onClose={() => ask(false)} />
        </Suspense>
      )}
    </span>
  )
}
