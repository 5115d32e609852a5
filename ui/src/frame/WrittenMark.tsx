import { memo, useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { hueOf } from '../kit/people'
import type { Element } from '../wire/types.gen'
import { inkText, tintGround } from './colours'
import { inside, LINE, NOTE, textOf } from './geometry'
import type { MarkActions } from './Marks'
import { useDrag } from './useDrag'
import { useMarkKeys } from './useMarkKeys'

type Written = Element & { kind: 'note' | 'text' }
type Props = { mark: Written; scale: number; actions?: MarkActions }

/** A sticky note or a label: text that can be moved, resized and written in for ever. */
export const WrittenMark = memo(function WrittenMark({ mark, scale, actions }: Props) {
  const { t } = useTranslation()
  const box = useRef<HTMLDivElement>(null)
  const isNote = mark.kind === 'note'
  const who = actions?.nameOf(mark.author)
  const mine = actions?.mayChange(mark) ?? false
  const selected = actions?.selected === mark.id
  const editing = actions?.editing === mark.id && !actions.writesElsewhere
  const keys = useMarkKeys(mark, actions)
  const drag = useDrag(scale, {
    onMove: (dx, dy) => {
      if (mine && box.current) box.current.style.translate = `${dx}px ${dy}px`
    },
    onDrop: (dx, dy) => {
      if (!mine || !box.current) return
      box.current.style.translate = ''
      actions?.onPlace(mark, inside(mark.x + dx, mark.y + dy, mark.w, mark.h))
    },
  })
  const resize = useDrag(scale, {
    onMove: (dx, dy) => {
      if (!box.current) return
      box.current.style.width = `${Math.max(140, mark.w + dx)}px`
      box.current.style.minHeight = `${Math.max(60, mark.h + dy)}px`
    },
    onDrop: (dx, dy) => {
      const w = Math.round(Math.min(1600 - mark.x, Math.max(140, mark.w + dx)))
      const h = Math.round(Math.min(1000 - mark.y, Math.max(60, mark.h + dy)))
      actions?.onPlace(mark, { w, h })
    },
  })
  const text = textOf(mark)
  const label = isNote ? (who?.mine ? 'frame.yourNote' : 'frame.noteBy') : who?.mine ? 'frame.yourText' : 'frame.textBy'
  const fixed = !actions
  const style = {
    left: mark.x,
    top: mark.y,
    width: mark.w,
    minHeight: mark.h,
    fontSize: mark.kind === 'note' ? NOTE.size : mark.text.size,
    lineHeight: LINE,
    padding: isNote ? NOTE.padding : 0,
    touchAction: mine ? 'none' : undefined,
  }
  const look = `absolute break-words whitespace-pre-wrap ${
    mark.kind === 'note'
      ? `${tintGround[mark.note.tint]} text-night rounded-[4px_4px_12px_12px] shadow-[0_2px_5px] shadow-night/20 border border-line`
      : inkText[mark.text.ink]
  } ${mark.hidden ? 'outline-4 outline-dashed outline-slate saturate-50' : ''} ${selected ? 'outline-4 outline-dusk' : ''} ${actions && !actions.touchable ? 'pointer-events-none' : ''}`
  const inner = (
    <>
      {isNote && who && (
        <span
          aria-hidden="true"
          className={`absolute start-0 max-w-full truncate rounded-t-[10px] px-3 font-semibold text-paper ${hueOf(mark.author ?? '')}`}
          style={{ top: -NOTE.tab, height: NOTE.tab, fontSize: NOTE.tabSize, lineHeight: `${NOTE.tab}px` }}
        >
          {who.name}
        </span>
      )}
      {editing ? <Writing mark={mark} actions={actions!} /> : text || ' '}
      {mark.hidden && <span className="block text-[0.7em] font-semibold text-slate">{t('frame.hiddenMark')}</span>}
      {selected && mine && isNote && (
        <span
          aria-hidden="true"
          className="absolute -right-3 -bottom-3 size-9 cursor-nwse-resize rounded-full border-4 border-dusk bg-paper"
          style={{ touchAction: 'none' }}
          {...resize}
          onPointerDown={(e) => {
            e.stopPropagation()
            resize.onPointerDown(e)
          }}
        />
      )}
    </>
  )
  if (fixed)
    return (
      <p className={look} style={style}>
        {text}
      </p>
    )
  if (editing)
    return (
      <div className={look} style={style}>
        {inner}
      </div>
    )
  return (
    <div
      ref={box}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={t(label, { name: who?.name ?? '', text }) + (mark.hidden ? `, ${t('frame.hiddenMark')}` : '')}
      aria-describedby={mine ? actions.keysHint : undefined}
      data-mark={mark.id}
      className={`${look} ${mine ? 'cursor-grab' : 'cursor-default'}`}
      style={style}
      onFocus={() => actions.onSelect(mark.id)}
      onKeyDown={keys}
      onDoubleClick={() => mine && actions.onEdit(mark.id)}
      {...drag}
      onPointerDown={(e) => {
        actions.onSelect(mark.id)
        drag.onPointerDown(e)
      }}
    >
      {inner}
    </div>
  )
})

const SAVE_AFTER_MS = 600

/** Writes in place. What is typed is saved while typing, and at the latest when the focus leaves. */
export function Writing({
  mark,
  actions,
  className = '',
}: {
  mark: Element
  actions: MarkActions
  className?: string
}) {
  const { t } = useTranslation()
  const [text, setText] = useState(() => textOf(mark))
  const area = useRef<HTMLTextAreaElement>(null)
  const unsaved = useRef<string | null>(null)
  const save = useRef(() => {})
  useEffect(() => {
    save.current = () => {
      if (unsaved.current !== null) actions.onText(mark, unsaved.current)
      unsaved.current = null
    }
  })
  useEffect(() => {
    const at = area.current
    at?.focus()
    at?.setSelectionRange(at.value.length, at.value.length)
    return () => save.current()
  }, [])
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
  const limit = mark.kind === 'note' ? 600 : 4000
  return (
    <>
      <textarea
        ref={area}
        rows={1}
        value={text}
        maxLength={limit}
        aria-label={t('ledge.writeHere')}
        placeholder={t('ledge.writeHere')}
        className={`w-full resize-none overflow-hidden bg-transparent outline-none placeholder:text-slate ${className}`}
        style={{ lineHeight: LINE }}
        onChange={(e) => {
          unsaved.current = e.target.value
          setText(e.target.value)
        }}
        onBlur={() => {
          save.current()
          actions.onEdit(null)
        }}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Escape') e.currentTarget.blur()
        }}
      />
      {limit - text.length <= 100 && (
        <span role="status" className="block text-[0.7em] text-slate">
          {t('ledge.left', { count: limit - text.length })}
        </span>
      )}
    </>
  )
}
