import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { QuestionFields } from '../../polls/editors/QuestionFields'
import { TryAnswer } from '../../polls/editors/TryAnswer'
import { whole } from '../../polls/editors/whole'
import { fresh, option } from '../../polls/kinds'
import type { Question } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** A question on the spot: it comes on a frame of its own behind this one, and everybody goes there. */
export function AskNow({ at, onClose }: { at: number; onClose: () => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [question, setQuestion] = useState<Question>({ text: '', ...fresh.choice() })
  const [busy, setBusy] = useState(false)
  const offer = (answers: string[]) =>
    setQuestion({ ...question, kind: 'choice', choice: { options: answers.map((a) => option(a)) } } as Question)
  const asked = whole(question)
  const few = asked.kind === 'choice' && asked.choice.options.filter((o) => o.text.trim() || o.picture).length < 2
  const may = !busy && asked.text.trim() !== '' && !few && asked.kind !== 'places'
  async function ask() {
    setBusy(true)
    if (await lesson.addFrame(at, { kind: 'question', question: { asked } })) onClose()
    else setBusy(false)
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('rework.askTitle')} text={t('rework.askText')}>
      <div className="mb-2 flex flex-wrap gap-2">
        <Button look="quiet" onClick={() => offer(t('rework.yesNo').split('|'))}>
          {t('rework.yesNo').split('|').join(' · ')}
        </Button>
        <Button look="quiet" onClick={() => offer(['A', 'B', 'C', 'D'])}>
          A · B · C · D
        </Button>
      </div>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          if (may) void ask()
        }}
      >
        <QuestionFields question={question} onQuestion={setQuestion} />
        <Button type="submit" look="main" size="large" disabled={!may}>
          {t('rework.askNow')}
        </Button>
      </form>
      <div className="mt-4">
        <TryAnswer question={question} />
      </div>
    </Dialog>
  )
}
