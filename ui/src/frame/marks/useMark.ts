import type { CSSProperties, KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { useStore } from 'zustand'
import { useBenchState } from '../../wire/hooks/useLesson'
import type { Element } from '../../wire/types.gen'
import { hostOf, textOf } from '../paint/geometry'
import { useHand } from '../hand/useHand'
import type { Lying } from '../../rules/pieces'
import { keyOnMark } from '../hand/keys'
import { isHidden } from '../../rules/standing'

/** What a mark is called by a screen reader, in the message file under "marks". */
export const nameKey = (mark: Element) => (mark.kind === 'shape' ? `shape_${mark.shape.form}` : mark.kind)

/** A link is told by its title and by where it leads. */
const linkWords = ({ link }: Element & { kind: 'link' }) => [link.title, hostOf(link.url)].filter(Boolean).join(', ')

/** What a mark knows of the hand: whether it is selected, how far it is being moved, and what its part is called. */
export function useMark(mark: Lying) {
  const { t } = useTranslation()
  const hand = useHand()
  const selected = useStore(hand.state, (s) => s.selected.has(mark.id))
  const editing = useStore(hand.state, (s) => s.editing === mark.id)
  const shift = useStore(hand.state, (s) => (s.shift?.ids.has(mark.id) ? s.shift : null))
  const faint = useStore(hand.state, (s) => s.only !== null && s.only !== mark.author)
  const names = useStore(hand.state, (s) => s.names || s.asked === mark.id)
  const author = useBenchState((s) => (mark.author === 'staff' ? '' : s.people.get(mark.author ?? '')?.name))
  const stacked = useStore(hand.state, (s) => s.stacked.get(mark.id) ?? 0)
  const replies = useStore(hand.state, (s) => s.replied.get(mark.id) ?? 0)
  const mine = mark.author === hand.ground.me
  const may = hand.mayMove(mark)
  const piece = hand.isPiece(mark)
  const who = mark.author === 'staff' ? t('frame.teacher') : (author ?? t('frame.somebody'))
  const what = t(`marks.${nameKey(mark)}`)
  const words =
    mark.kind === 'stamp' ? t(`stamps.${mark.stamp.sign}`) : mark.kind === 'link' ? linkWords(mark) : textOf(mark)
  const label = [
    hand.ground.preparing
      ? t(`marks.layer_${mark.layer || 'fixed'}`, { what })
      : piece
        ? t('marks.piece', { what })
        : mine
          ? t('marks.yours', { what })
          : t('marks.of', { who, what }),
    words && `: ${words}`,
    isHidden(mark) && `, ${t('frame.hiddenMark')}`,
    mark.agreed?.length && `, ${t('marks.agreed', { count: mark.agreed.length })}`,
    stacked > 0 && `, ${t('marks.stacked', { count: stacked })}`,
    replies > 0 && `, ${t('marks.replied', { count: replies })}`,
    mark.group && `, ${t('marks.grouped')}`,
  ]
    .filter(Boolean)
    .join('')
  const part = {
    role: 'button',
    tabIndex: 0,
    'aria-pressed': selected,
    'aria-label': label,
    'aria-describedby': may ? 'mark-keys' : undefined,
    'data-mark': mark.id,
    'data-layer': hand.ground.preparing ? mark.layer || 'fixed' : undefined,
    onFocus: () => hand.show(mark),
    onKeyDown: (e: KeyboardEvent) => keyOnMark(hand, mark, e),
    onPointerEnter: () => hand.set({ hovered: mark.id }),
    onPointerLeave: () => hand.set({ hovered: null }),
  } as const
  const x = mark.x + (shift?.dx ?? 0)
  const y = mark.y + (shift?.dy ?? 0)
  const style: CSSProperties = {
    opacity: faint ? 0.15 : isHidden(mark) ? 0.5 : undefined,
    // One's own hand is followed at once; what others do glides.
    transition: shift ? 'none' : undefined,
  }
  return {
    hand,
    selected,
    editing,
    may,
    mine,
    who,
    names: names && !hand.ground.preparing,
    tab: !piece && !hand.ground.preparing,
    part,
    x,
    y,
    style,
    shift,
  }
}

/** The style of a mark that is a box of the page. */
export const boxStyle = (mark: Element, x: number, y: number, more: CSSProperties): CSSProperties => ({
  left: x,
  top: y,
  width: mark.w,
  rotate: mark.turn ? `${mark.turn}deg` : undefined,
  ...more,
})
