import { ThumbsUp } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import type { AskedQuestion, OwnVoices, SharedVoices } from '../wire/types.gen'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'

const MOST = 200

/** The questions of the class as far as one sees them: to ask, and to agree instead of asking again. */
export default function Questions({
  own,
  shared,
  onClose,
}: {
  own: OwnVoices
  shared: SharedVoices
  onClose: () => void
}) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const me = useLessonState((s) => s.student?.me.id)
  const people = useLessonState((s) => s.people)
  const [text, setText] = useState('')
  const mine = new Set(own.questions.map((q) => q.id))
  const theirs = shared.questions.filter((q) => !mine.has(q.id))
  async function send() {
    if (await lesson.say({ kind: 'ask', ask: { id: uuidv7(), text } })) setText('')
  }
  const who = (q: AskedQuestion) =>
    mine.has(q.id) ? t('voice.yours') : q.by && q.by !== me ? (people.get(q.by)?.name ?? '') : ''
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={t('voice.questions')}
      text={t(shared.forAll ? (shared.named ? 'voice.toAllNamed' : 'voice.toAll') : 'voice.toTeacher')}
    >
      {!shared.off && (
        <form
          className="mb-4 flex items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            void send()
          }}
        >
          <textarea
            aria-label={t('voice.ask')}
            placeholder={t('voice.ask')}
            dir="auto"
            rows={2}
            maxLength={MOST}
            value={text}
            onChange={(e) => setText(e.target.value)}
            className="min-w-0 grow rounded-lg border-2 border-edge p-2 text-lg"
          />
          <Button type="submit" look="main" className="min-h-11" disabled={!text.trim()}>
            {t('voice.send')}
          </Button>
        </form>
      )}
      <ul className="flex flex-col gap-2" data-part="questions">
        {[...own.questions, ...theirs].map((q) => (
          <li
            key={q.id}
            className={`flex items-start gap-3 rounded-lg border border-line p-3 ${q.ticked ? 'text-slate' : ''}`}
          >
            <span className="min-w-0 grow">
              <span dir="auto" className="block text-lg break-words">
                {q.text}
              </span>
              <span className="text-sm text-slate">
                {[who(q), q.ticked && t('voice.ticked')].filter(Boolean).join(' · ')}
              </span>
            </span>
            {mine.has(q.id) ? (
              <span className="inline-flex items-center gap-1.5 text-slate tabular-nums">
                <ThumbsUp size={17} aria-hidden="true" />
                <span aria-label={t('voice.agreed', { count: q.agreed })}>{q.agreed}</span>
              </span>
            ) : (
              <button
                type="button"
                aria-pressed={own.agreed.includes(q.id)}
                aria-label={t('voice.metoo', { text: q.text })}
                title={t('voice.metooShort')}
                className={`inline-flex min-h-10 shrink-0 items-center gap-1.5 rounded-lg border px-2.5 font-semibold tabular-nums ${own.agreed.includes(q.id) ? 'border-dusk bg-dusk-soft text-dusk' : 'border-edge hover:bg-mist'}`}
                onClick={() =>
                  void lesson.say({ kind: 'agree', agree: { question: q.id, yes: !own.agreed.includes(q.id) } })
                }
              >
                <ThumbsUp size={17} aria-hidden="true" />
                {q.agreed}
              </button>
            )}
          </li>
        ))}
      </ul>
    </Dialog>
  )
}
