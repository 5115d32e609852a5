import { useId, useState, type ReactNode, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { LevelBadge, levelIcons } from '../../kit/LevelBadge'
import { tintGround } from '../../frame/paint/colours'
import { Listen } from '../../polls/sound/Listen'
import { SoundField } from '../../polls/sound/SoundField'
import type { Level, WorkJudged } from '../../wire/types.gen'
import type { Said } from './useMarking'

const MOST = 6

type Props = {
  session: string
  scale: Level[]
  said: Said
  others: WorkJudged[]
  names: Record<string, string>
  phrases: string[]
  /** The field for words. */
  words: RefObject<HTMLTextAreaElement | null>
  onSay: (to: Said) => void
  /** The keys give this level now, and not one by a criterion. */
  on: boolean
  /** What is judged by criteria. */
  grid: ReactNode
}

/** A level and words for a piece of work, by keys or by pressing. */
export function Judge({ session, scale, said, others, names, phrases, words, onSay, on, grid }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const comment = said.comment ?? ''
  const [offers, setOffers] = useState(false)
  const typed = comment.trim().toLocaleLowerCase()
  const fitting = phrases.filter((p) => p !== comment && p.toLocaleLowerCase().includes(typed)).slice(0, MOST)
  return (
    <div className="flex flex-col gap-4">
      {grid}
      <div
        role="group"
        aria-label={t('marking.level')}
        aria-current={on || undefined}
        data-part={on ? 'judged-now' : undefined}
        className={on ? 'rounded-xl border-s-4 border-dusk ps-3' : ''}
      >
        <p className="mb-2 font-semibold">{t('marking.level')}</p>
        {said.old && (
          <p className="mb-2 flex flex-wrap items-center gap-2 text-sm text-slate">
            {t('marking.older')}
            <LevelBadge level={said.old} />
          </p>
        )}
        <div className="flex flex-col gap-2">
          {scale.map((level, i) => {
            const Icon = levelIcons[level.sign]
            const chosen = said.level === i
            return (
              <button
                key={level.name}
                type="button"
                aria-pressed={chosen}
                aria-keyshortcuts={`${i + 1}`}
                onClick={() => onSay({ level: chosen ? undefined : i })}
                className={`flex min-h-11 items-center gap-2.5 rounded-xl border-2 px-3 py-1.5 text-start font-semibold ${tintGround[level.tint]} ${chosen ? 'border-dusk outline-2 outline-dusk' : 'border-transparent hover:border-edge'}`}
              >
                <Icon size={18} aria-hidden="true" className="shrink-0" />
                <bdi className="grow">{level.name}</bdi>
                <kbd aria-hidden="true" className="rounded bg-paper px-1.5 text-sm font-normal text-slate">
                  {i + 1}
                </kbd>
              </button>
            )
          })}
        </div>
      </div>
      <div>
        <label htmlFor={id} className="mb-1 block font-semibold">
          {t('marking.comment')}
        </label>
        <textarea
          id={id}
          ref={words}
          rows={4}
          maxLength={2000}
          dir="auto"
          value={comment}
          onFocus={() => setOffers(true)}
          onChange={(e) => onSay({ comment: e.target.value })}
          className="w-full rounded-xl border border-edge bg-paper px-3 py-2"
        />
        {offers && fitting.length > 0 && (
          <ul aria-label={t('marking.phrases')} className="mt-1 flex flex-col gap-1">
            {fitting.map((p) => (
              <li key={p}>
                <button
                  type="button"
                  dir="auto"
                  onClick={() => onSay({ comment: p })}
                  className="w-full truncate rounded-lg bg-mist px-2.5 py-1 text-start text-sm hover:bg-dusk-soft"
                >
                  {p}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <SoundField
        label={t('marking.speak')}
        to={`/sessions/${session}/voices`}
        sound={said.voice || undefined}
        onSound={(voice) => onSay({ voice: voice ?? '' })}
      />
      {others.map((o) => (
        <section
          key={o.by}
          aria-label={t('marking.by', { name: names[o.by] })}
          className="rounded-xl bg-mist px-3 py-2"
        >
          <h3 className="text-sm text-slate">{t('marking.by', { name: names[o.by] })}</h3>
          {o.level && <LevelBadge level={o.level} />}
          {o.comment && (
            <p dir="auto" className="break-words whitespace-pre-wrap">
              {o.comment}
            </p>
          )}
          {o.voice && <Listen sound={o.voice} />}
        </section>
      ))}
    </div>
  )
}
