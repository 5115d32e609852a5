import { Check, Eye, EyeOff, Presentation, ThumbsUp } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useLessonState } from '../../wire/hooks/useLesson'
import type { ClassQuestion, Front, VoiceSettings } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

const none: ClassQuestion[] = []

/** Questions from the class, those first with which most agree; and how the class may ask. */
export function Questions({ onFront }: { onFront: (show: Front) => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const all = useLessonState((s) => s.said.all)
  const people = useLessonState((s) => s.people)
  const [ticked, showTicked] = useState(false)
  // How the class may ask is shown as wished at once, and as it is when the server has answered.
  const [wish, setWish] = useState<VoiceSettings | null>(null)
  const { questions = none } = all ?? {}
  const { off = false, forAll = false, named = false } = wish ?? all ?? {}
  const waiting = questions.filter((q) => !q.ticked)
  const shown = (ticked ? questions : waiting).map((q) => ({ ...q, agrees: q.agreed?.length ?? 0 }))
  async function change(part: Partial<VoiceSettings>) {
    const next = { off, forAll, named, ...part }
    setWish(next)
    await lesson.say({ kind: 'let', let: next })
    setWish(null)
  }
  const small =
    'grid size-8 place-items-center rounded-lg text-slate hover:bg-mist hover:text-night aria-pressed:text-dusk'
  return (
    <>
      <div className="flex flex-col gap-1 text-[13px]">
        {(
          [
            ['open', !off, (on: boolean) => void change({ off: !on })],
            ['forAll', forAll, (on: boolean) => void change({ forAll: on })],
            ['named', named, (on: boolean) => void change({ named: on })],
          ] as const
        ).map(([key, on, set]) => (
          <label key={key} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={on}
              disabled={key === 'named' && !forAll}
              onChange={(e) => set(e.target.checked)}
              className="size-4 accent-dusk"
            />
            {t(`voices.${key}`)}
          </label>
        ))}
      </div>
      {shown.length === 0 && <p className="rounded-lg bg-mist p-3 text-slate">{t('voices.none')}</p>}
      <ul className="-mx-1 flex min-h-0 grow flex-col gap-1.5 overflow-auto px-1" data-part="class-questions">
        {shown.map((q) => (
          <li key={q.id} className={`rounded-lg border border-line p-2 ${q.ticked || q.hidden ? 'text-slate' : ''}`}>
            <p dir="auto" className="break-words">
              {q.text}
            </p>
            <div className="flex items-center gap-0.5 text-[13px] text-slate">
              <span className="inline-flex min-w-0 grow items-center gap-1.5">
                <ThumbsUp size={14} aria-hidden="true" />
                <span className="tabular-nums" aria-label={t('voice.agreed', { count: q.agrees })}>
                  {q.agrees}
                </span>
                <span className="truncate">{people.get(q.by)?.name}</span>
              </span>
              <button
                type="button"
                className={small}
                aria-label={t('voices.front', q)}
                title={t('front.this')}
                onClick={() => onFront({ kind: 'words', words: q.text })}
              >
                <Presentation size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={small}
                aria-pressed={q.hidden ?? false}
                aria-label={t('voices.hide', q)}
                title={t('voices.hideShort')}
                onClick={() => void lesson.say({ kind: 'hide', hide: { question: q.id, yes: !q.hidden } })}
              >
                {q.hidden ? <EyeOff size={16} aria-hidden="true" /> : <Eye size={16} aria-hidden="true" />}
              </button>
              <button
                type="button"
                className={small}
                aria-pressed={q.ticked ?? false}
                aria-label={t('voices.tick', q)}
                title={t('voices.tickShort')}
                onClick={() => void lesson.say({ kind: 'tick', tick: { question: q.id, yes: !q.ticked } })}
              >
                <Check size={17} aria-hidden="true" />
              </button>
            </div>
          </li>
        ))}
      </ul>
      {questions.length > waiting.length && (
        <button
          type="button"
          className="self-start text-[13px] font-semibold text-dusk underline-offset-4 hover:underline"
          onClick={() => showTicked(!ticked)}
        >
          {ticked ? t('voices.hideTicked') : t('voices.showTicked', { count: questions.length - waiting.length })}
        </button>
      )}
    </>
  )
}
