import { MessageSquarePlus } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Level } from '../../wire/types.gen'
import type { Said } from './useMarking'

type Props = { what: string; scale: Level[]; said: Said; onSay: (to: Said) => void }

/** A level and a word about one note or answer. */
export function AboutMark({ what, scale, said, onSay }: Props) {
  const { t } = useTranslation()
  const [opened, open] = useState(false)
  const words = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (opened) words.current?.focus()
  }, [opened])
  if (!opened && !said.comment && said.level === undefined)
    return (
      <button
        type="button"
        aria-label={t('marking.aboutMark', { text: what })}
        title={t('marking.about')}
        onClick={() => open(true)}
        className="grid size-8 shrink-0 place-items-center rounded-lg text-slate hover:bg-mist hover:text-night"
      >
        <MessageSquarePlus size={17} aria-hidden="true" />
      </button>
    )
  const field = 'min-h-9 rounded-lg border border-edge bg-paper px-2 py-1'
  return (
    <span className="flex basis-full flex-wrap gap-2">
      <select
        aria-label={t('marking.levelOf', { text: what })}
        value={said.level ?? ''}
        onChange={(e) => onSay({ level: e.target.value === '' ? undefined : Number(e.target.value) })}
        className={field}
      >
        <option value="">{t('marking.noLevel')}</option>
        {scale.map((level, i) => (
          <option key={level.name} value={i}>
            {level.name}
          </option>
        ))}
      </select>
      <input
        ref={words}
        aria-label={t('marking.wordsOf', { text: what })}
        value={said.comment ?? ''}
        maxLength={2000}
        dir="auto"
        onChange={(e) => onSay({ comment: e.target.value })}
        className={`${field} min-w-40 grow`}
      />
    </span>
  )
}
