import { Suspense, useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../../kit/part'
import type { Element } from '../../wire/types.gen'
import { LINE, textOf } from '../paint/geometry'
import { focusMark } from './focus'
import { useHand } from './useHand'

const Dictate = part(() => import('./Dictate'))
const canDictate = 'SpeechRecognition' in window || 'webkitSpeechRecognition' in window

const SAVE_AFTER_MS = 600
/** How often the others hear that somebody is still writing. */
const STILL_MS = 3000

/** Writes in place. What is typed is saved while typing, and at the latest when the focus leaves. */
export function Writing({ mark }: { mark: Element }) {
  const { t } = useTranslation()
  const hand = useHand()
  const [text, setText] = useState(() => textOf(mark))
  const area = useRef<HTMLTextAreaElement>(null)
  const unsaved = useRef<string | null>(null)
  const save = useRef(() => {})
  useEffect(() => {
    save.current = () => {
      if (unsaved.current !== null) hand.write(mark, unsaved.current)
      unsaved.current = null
    }
  })
  useEffect(() => {
    const at = area.current
    at?.focus({ preventScroll: true })
    at?.setSelectionRange(at.value.length, at.value.length)
    const { sheet } = hand.ground
    const still = sheet === null ? 0 : setInterval(() => hand.bench.passing.edit(sheet, mark.id), STILL_MS)
    return () => {
      clearInterval(still)
      save.current()
    }
  }, [hand, mark.id])
  useEffect(() => {
    if (unsaved.current === null) return
    const timer = setTimeout(() => save.current(), SAVE_AFTER_MS)
    return () => clearTimeout(timer)
  }, [text])
  useEffect(() => {
    const at = area.current
    if (!at) return
    at.style.height = 'auto'
    at.style.height = `${at.scrollHeight}px`
  }, [text])
  const limit = mark.kind === 'text' ? 4000 : 600
  const label = mark.kind === 'picture' ? t('ledge.describe') : t('ledge.writeHere')
  return (
    <>
      <textarea
        ref={area}
        dir="auto"
        rows={1}
        value={text}
        maxLength={limit}
        aria-label={label}
        placeholder={label}
        className="w-full resize-none overflow-hidden bg-transparent text-inherit outline-none select-text placeholder:text-slate"
        style={{ lineHeight: LINE, textAlign: 'inherit', fontWeight: 'inherit' }}
        onChange={(e) => {
          unsaved.current = e.target.value
          setText(e.target.value)
        }}
        onBlur={(e) => {
          // The dictation button belongs to the writing.
          if (e.relatedTarget instanceof HTMLElement && e.relatedTarget.dataset.part === 'dictate') return
          save.current()
          if (hand.now.editing === mark.id) hand.edit(null)
        }}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Escape') {
            e.currentTarget.blur()
            // The mark takes the focus back as soon as it is itself again.
            requestAnimationFrame(() => focusMark(mark.id))
          }
        }}
      />
      {canDictate && (
        <Suspense fallback={null}>
          <Dictate
            onWords={(words) => {
              const next = `${text}${text && !/\s$/.test(text) ? ' ' : ''}${words}`.slice(0, limit)
              unsaved.current = next
              setText(next)
            }}
          />
        </Suspense>
      )}
      {limit - text.length <= 100 && (
        <span role="status" className="block text-[0.7em] text-slate">
          {t('ledge.left', { count: limit - text.length })}
        </span>
      )}
    </>
  )
}
