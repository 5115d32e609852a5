import { Check, CircleDot, X } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { textOf } from '../../frame/paint/geometry'
import { Thumbnail } from '../../frame/paint/Thumbnail'
import { answerID, marksOf } from '../../rules/answers'
import type { Frame, Kept, OnFrame } from '../../wire/types.gen'
import '../../words/windows'

type Props = {
  student: Kept
  frames: Frame[]
  frame?: string
  /** What is said of a note or an answer, by its id; left out where nothing can be said. */
  about?: (frame: string, mark: string, text: string) => ReactNode
  /** What lies over the picture of the one frame. */
  over?: ReactNode
}

/** The work that is judged: one frame large, or all frames of the lesson small. */
export function Work({ student, frames, frame, about, over }: Props) {
  const { t } = useTranslation()
  const left = student.frames.filter((f) => f.marks.length > 0 || f.answers.length > 0)
  const shown = frame ? left.filter((f) => f.frame === frame) : left
  if (shown.length === 0) return <p className="text-slate">{t('record.nothing')}</p>
  return (
    <div className={frame ? '' : 'grid gap-4 sm:grid-cols-2'}>
      {shown.map((on) => (
        <One
          key={on.frame}
          on={on}
          frames={frames}
          name={student.name}
          width={frame ? 900 : 440}
          about={about}
          over={frame && over}
        />
      ))}
    </div>
  )
}

const signs = { right: Check, partly: CircleDot, wrong: X }
const looks = { right: 'text-fern-deep', partly: 'text-amber', wrong: 'text-rose' }

type OneProps = Pick<Props, 'about' | 'over'> & { on: OnFrame; frames: Frame[]; name: string; width: number }

function One({ on, frames, name, width, about, over }: OneProps) {
  const { t } = useTranslation()
  const n = frames.findIndex((f) => f.id === on.frame)
  const frame = frames[n]!
  const marks = useMemo(() => [...on.marks, ...marksOf(on.answers)], [on])
  return (
    <div className="flex flex-col gap-2">
      <div dir="ltr" className="relative overflow-hidden rounded-xl border border-line">
        <Thumbnail frame={frame} marks={marks} width={width} label={t('record.pictureOf', { name, n: n + 1 })} />
        {over}
      </div>
      <ul className="flex flex-col gap-1 empty:hidden">
        {on.marks
          .filter((m) => textOf(m) !== '')
          .map((m) => (
            <li key={m.id} className="flex flex-wrap items-center gap-x-2 rounded-lg bg-snow px-2.5 py-1">
              <span dir="auto" className="min-w-0 grow break-words whitespace-pre-wrap">
                {textOf(m)}
              </span>
              {about?.(on.frame, m.id, textOf(m))}
            </li>
          ))}
        {on.answers.map((a) => {
          const Sign = a.verdict && signs[a.verdict]
          const asked = frame.prepared.find((m) => m.id === a.poll)
          return (
            <li
              key={`${a.poll} ${a.round}`}
              className="flex flex-wrap items-center gap-x-2 rounded-lg bg-snow px-2.5 py-1"
            >
              <span dir="auto" className="text-slate">
                {asked?.kind === 'poll' && asked.poll.text}
                {a.round > 1 && ` (${t('poll.round', a)})`}
              </span>
              <b dir="auto">{a.text}</b>
              {Sign && (
                <span
                  className={`inline-flex items-center gap-1 text-sm font-semibold ${looks[a.verdict as keyof typeof looks]}`}
                >
                  <Sign size={14} aria-hidden="true" />
                  {t(`given.${a.verdict as keyof typeof looks}`)}
                </span>
              )}
              {a.mistake && <span className="text-sm text-amber">{a.mistake}</span>}
              {about?.(on.frame, answerID(a.poll, a.round), a.text)}
            </li>
          )
        })}
      </ul>
    </div>
  )
}
