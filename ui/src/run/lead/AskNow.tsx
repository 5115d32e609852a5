import { Plus, X } from 'lucide-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { useStaffLesson } from '../../wire/useStaff'

/** How many answers a question on the spot begins with, has at least, and at most. */
const [FIRST, LEAST, MOST] = [3, 2, 8]
const field = 'min-h-11 w-full min-w-0 rounded-lg border border-edge bg-paper px-3'

/** A question on the spot: it comes on a frame of its own behind this one, and everybody goes there. */
export function AskNow({ at, onClose }: { at: number; onClose: () => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [text, setText] = useState('')
  const [answers, setAnswers] = useState<string[]>(Array.from({ length: FIRST }, () => ''))
  const [busy, setBusy] = useState(false)
  const rows = useRef<HTMLOListElement>(null)
  const given = answers.map((a) => a.trim()).filter(Boolean)
  const focus = (row: number) =>
    requestAnimationFrame(() => rows.current?.querySelectorAll<HTMLElement>('input')[row]?.focus())
  function add() {
    setAnswers([...answers, ''])
    focus(answers.length)
  }
  async function ask() {
    setBusy(true)
    if (await lesson.addFrame(at, { kind: 'question', question: { text: text.trim(), options: given } })) onClose()
    else setBusy(false)
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('rework.askTitle')} text={t('rework.askText')}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void ask()
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          {t('rework.question')}
          <textarea
            value={text}
            onChange={(e) => setText(e.target.value)}
            maxLength={600}
            rows={2}
            dir="auto"
            className="rounded-lg border border-edge bg-paper p-3 font-normal"
          />
        </label>
        <fieldset>
          <legend className="mb-1 flex w-full flex-wrap items-center gap-2 font-semibold">
            {t('rework.answers')}
            <Button look="quiet" className="ms-auto" onClick={() => setAnswers(t('rework.yesNo').split('|'))}>
              {t('rework.yesNo').split('|').join(' · ')}
            </Button>
            <Button look="quiet" onClick={() => setAnswers(['A', 'B', 'C', 'D'])}>
              A · B · C · D
            </Button>
          </legend>
          <ol ref={rows} className="flex flex-col gap-2">
            {answers.map((answer, i) => (
              <li key={i} className="flex items-center gap-1">
                <input
                  aria-label={t('rework.answer', { n: i + 1 })}
                  value={answer}
                  maxLength={300}
                  dir="auto"
                  onChange={(e) => setAnswers(answers.map((a, k) => (k === i ? e.target.value : a)))}
                  className={field}
                />
                <Button
                  look="quiet"
                  aria-label={t('rework.dropAnswer', { n: i + 1 })}
                  disabled={answers.length <= LEAST}
                  onClick={() => {
                    setAnswers(answers.filter((_, k) => k !== i))
                    focus(Math.max(0, i - 1))
                  }}
                >
                  <X size={17} aria-hidden="true" />
                </Button>
              </li>
            ))}
          </ol>
          {answers.length < MOST && (
            <Button look="quiet" className="mt-1" onClick={add}>
              <Plus size={17} aria-hidden="true" />
              {t('rework.addAnswer')}
            </Button>
          )}
        </fieldset>
        <Button type="submit" look="main" size="large" disabled={busy || !text.trim() || given.length < LEAST}>
          {t('rework.askNow')}
        </Button>
      </form>
    </Dialog>
  )
}
