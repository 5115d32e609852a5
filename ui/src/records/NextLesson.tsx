import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Field } from '../kit/fields/Field'
import { Refusal } from '../kit/Refusal'
import { Switch } from '../kit/fields/Switch'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf } from '../wire/http'
import type { BoardMade, Code, LessonReport, NextWish } from '../wire/types.gen'

type Props = { session: string; told: LessonReport; onClose: () => void }

/** Begins the next lesson's board: with what went wrong, what was left unfinished, or all of it clean. */
export function NextLesson({ session, told: { report, again, unfinished }, onClose }: Props) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [title, setTitle] = useState(t('nextLesson.called', { title: report.title }).slice(0, 120))
  const [polls, setPolls] = useState(again.map((a) => a.poll))
  const [frames, setFrames] = useState(unfinished)
  const [additions, setAdditions] = useState(false)
  const [problem, tell] = useState<Code | null>(null)
  const make = async () => {
    tell(null)
    try {
      const wish: NextWish = { title: title.trim(), polls, frames, additions }
      const made = await call<BoardMade>('POST', `/sessions/${session}/next`, wish)
      void navigate(`/boards/${made.board}`)
    } catch (error) {
      tell(codeOf(error))
    }
  }
  const toggled = (all: string[], id: string) => (all.includes(id) ? all.filter((x) => x !== id) : [...all, id])
  const inOrder = (ids: string[]) => report.frames.map((f) => f.id).filter((id) => ids.includes(id))
  return (
    <Dialog open onOpenChange={onClose} title={t('nextLesson.title')} text={t('nextLesson.text')}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <Refusal code={problem} />
        <Field
          label={t('nextLesson.name')}
          value={title}
          maxLength={120}
          required
          onChange={(e) => setTitle(e.target.value)}
        />
        {again.length > 0 && (
          <fieldset className="flex flex-col gap-2">
            <legend className="mb-1 font-semibold">{t('nextLesson.again')}</legend>
            {again.map((a) => (
              <Tick
                key={a.poll}
                text={a.text}
                more={[
                  t('report.right', a.advice),
                  t('report.span', {
                    low: Math.round(100 * a.advice.span.low),
                    high: Math.round(100 * a.advice.span.high),
                  }),
                  a.wrong[0] && t('report.instead', { what: a.wrong[0].text }),
                ]}
                on={polls.includes(a.poll)}
                onTick={() => setPolls(toggled(polls, a.poll))}
              />
            ))}
          </fieldset>
        )}
        <fieldset className="flex flex-col gap-2">
          <legend className="mb-1 font-semibold">{t('nextLesson.frames')}</legend>
          <p className="flex gap-2">
            <Button onClick={() => setFrames(report.frames.map((f) => f.id))}>{t('nextLesson.all')}</Button>
            <Button onClick={() => setFrames([])}>{t('nextLesson.none')}</Button>
          </p>
          {report.frames.map((f) => (
            <Tick
              key={f.id}
              text={`${f.n}. ${f.title}`}
              more={[
                t('report.worked', { count: f.worked, of: report.here }),
                unfinished.includes(f.id) && t('nextLesson.unfinished'),
              ]}
              on={frames.includes(f.id)}
              onTick={() => setFrames(inOrder(toggled(frames, f.id)))}
            />
          ))}
        </fieldset>
        <Switch
          label={t('nextLesson.additions')}
          help={t('nextLesson.additionsHelp')}
          on={additions}
          onSwitch={setAdditions}
        />
        <Button look="main" type="submit" className="self-start" disabled={polls.length + frames.length === 0}>
          {t('nextLesson.make')}
        </Button>
      </form>
    </Dialog>
  )
}

type TickProps = { text: string; more: Array<string | false | undefined>; on: boolean; onTick: () => void }

/** Something to choose, with what speaks for it. */
function Tick({ text, more, on, onTick }: TickProps) {
  const id = useId()
  return (
    <div className="flex gap-2.5">
      <input
        id={id}
        type="checkbox"
        aria-describedby={`${id}-more`}
        className="mt-1 size-4.5 shrink-0 accent-dusk"
        checked={on}
        onChange={onTick}
      />
      <div>
        <label htmlFor={id} dir="auto">
          {text}
        </label>
        <p id={`${id}-more`} className="text-sm text-slate">
          {more.filter(Boolean).join(' · ')}
        </p>
      </div>
    </div>
  )
}
