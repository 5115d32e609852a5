import { Layers, MessageSquare, ThumbsUp } from 'lucide-react'
import { memo, useLayoutEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { hueOf } from '../../kit/people'
import { usePassing } from '../../wire/hooks/useLesson'
import type { Element } from '../../wire/types.gen'
import { inkText, tintGround } from '../paint/colours'
import { LINE, measured, NOTE, textOf } from '../paint/geometry'
import { useHandState } from '../hand/useHand'
import { Writing } from '../hand/Writing'
import { boxStyle, useMark } from './useMark'
import { isHeld, isHidden } from '../../rules/standing'

type Written = Element & { kind: 'note' | 'text' }
type Props = { mark: Written; fixed: boolean }

/** A sticky note or a text: words that can be written in for ever. */
export const WrittenMark = memo(function WrittenMark({ mark, fixed }: Props) {
  return fixed ? <FixedWords mark={mark} /> : <LiveWords mark={mark} />
})

const look = (mark: Written) =>
  mark.kind === 'note'
    ? `${tintGround[mark.note.tint]} text-night rounded-[4px_4px_12px_12px] shadow-[0_2px_5px] shadow-night/20 border border-line`
    : `${inkText[mark.text.ink]} ${mark.text.bold ? 'font-bold' : ''}`

const lettering = (mark: Written) =>
  ({
    minHeight: mark.h,
    fontSize: mark.kind === 'note' ? mark.note.size || NOTE.size : mark.text.size,
    lineHeight: LINE,
    padding: mark.kind === 'note' ? NOTE.padding : 0,
    textAlign: mark.kind === 'text' && mark.text.align ? (mark.text.align === 'end' ? 'end' : 'center') : undefined,
  }) as const

const wraps = 'mark-words absolute break-words whitespace-pre-wrap'

function FixedWords({ mark }: { mark: Written }) {
  return (
    <div
      dir="auto"
      className={`${wraps} pointer-events-none ${look(mark)}`}
      style={boxStyle(mark, mark.x, mark.y, lettering(mark))}
    >
      <Words mark={mark} />
    </div>
  )
}

function LiveWords({ mark }: { mark: Written }) {
  const { t } = useTranslation()
  const { selected, editing, who, names, tab, part, x, y, style, hand, may } = useMark(mark)
  const box = useRef<HTMLDivElement>(null)
  const narrow = useHandState((s) => s.writesBelow)
  const writer = usePassing((p) => p.whoWrites().get(mark.id))
  useLayoutEffect(() => {
    if (box.current) measured.set(mark, box.current.offsetHeight)
  })
  const isNote = mark.kind === 'note'
  const writes = editing && !narrow
  const agreed = mark.agreed ?? []
  // Names and counts are as large as can be read from the back, and no larger than the words of a small note.
  const beside = mark.kind === 'note' && mark.note.size && mark.note.size < NOTE.tabSize ? NOTE.tabLeast : NOTE.tabSize
  const stacked = useHandState((s) => s.stacked.get(mark.id) ?? 0)
  const replies = useHandState((s) => s.replied.get(mark.id) ?? 0)
  return (
    <div
      ref={box}
      dir="auto"
      {...(writes ? { 'data-mark': mark.id, 'data-own-hand': true } : part)}
      className={`mark-box ${wraps} ${look(mark)} ${isHidden(mark) ? 'outline-4 outline-dashed outline-slate' : isHeld(mark) ? 'outline-4 outline-dashed outline-amber' : ''} ${selected ? 'outline-3 outline-dusk' : ''} ${may ? 'cursor-grab' : ''} ${stacked ? 'shadow-[5px_5px_0_-1px_var(--color-paper),5px_5px_0_0_var(--color-edge)]' : ''}`}
      style={boxStyle(mark, x, y, { ...lettering(mark), ...style })}
    >
      {((isNote && tab) || names) && (
        <span
          aria-hidden="true"
          className={`absolute start-0 max-w-full truncate rounded-t-[10px] px-3 font-semibold text-paper ${hueOf(mark.author ?? '')}`}
          style={{ top: -NOTE.tab, height: NOTE.tab, fontSize: beside, lineHeight: `${NOTE.tab}px` }}
        >
          {who}
        </span>
      )}
      {writes ? <Writing mark={mark} /> : <Words mark={mark} />}
      {isHidden(mark) && <span className="block text-[20px] font-semibold text-slate">{t('frame.hiddenMark')}</span>}
      {isHeld(mark) && (
        <span className="absolute start-0 -bottom-7 rounded-md bg-amber px-2 text-[18px] font-semibold whitespace-nowrap text-paper">
          {t('frame.heldMark')}
        </span>
      )}
      {writer && !writes && (
        <span className="absolute end-0 -bottom-7 rounded-md bg-night px-2 text-[18px] font-semibold text-paper">
          {t('marks.writing', { name: hand.nameOf(writer) })}
        </span>
      )}
      {agreed.length > 0 && (
        <span
          aria-hidden="true"
          style={{ fontSize: beside }}
          className="absolute start-2 -bottom-4 inline-flex items-center gap-1.5 rounded-full border border-line bg-paper px-2.5 py-0.5 leading-none font-semibold text-night tabular-nums"
        >
          <ThumbsUp
            size="0.85em"
            className={agreed.includes(hand.ground.me) ? 'fill-dusk-soft text-dusk' : 'text-slate'}
          />
          {agreed.length}
        </span>
      )}
      {stacked > 0 && (
        <span
          aria-hidden="true"
          className="absolute -end-3 -top-4 inline-flex items-center gap-1 rounded-full bg-night px-2.5 text-[24px] font-bold text-paper tabular-nums"
        >
          <Layers size={20} />
          {stacked}
        </span>
      )}
      {replies > 0 && (
        <span
          aria-hidden="true"
          style={{ fontSize: beside }}
          className="absolute end-2 -bottom-4 inline-flex items-center gap-1.5 rounded-full border border-line bg-paper px-2.5 py-0.5 leading-none font-semibold text-night tabular-nums"
        >
          <MessageSquare size="0.85em" className="text-slate" />
          {replies}
        </span>
      )}
    </div>
  )
}

/** The words of a mark, as a list where they are one. */
function Words({ mark }: { mark: Written }) {
  const text = textOf(mark)
  if (mark.kind === 'note' || !mark.text.list) return <>{text || ' '}</>
  const List = mark.text.list === 'numbers' ? 'ol' : 'ul'
  return (
    <List className={`ps-[1.2em] ${mark.text.list === 'numbers' ? 'list-decimal' : 'list-disc'}`}>
      {text.split('\n').map((line, i) => (
        <li key={i}>{line || ' '}</li>
      ))}
    </List>
  )
}
