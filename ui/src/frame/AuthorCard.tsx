import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Face } from '../kit/people'
import type { Element } from '../wire/types.gen'
import { useHand, useHandState } from './hand/useHand'
import { nameKey } from './marks/useMark'
import { clock } from '../words/words'

const WAIT_MS = 700

/** Who made the mark under the mouse, the focus or a resting finger, and when. */
export default function AuthorCard({ marks }: { marks: readonly Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const hovered = useHandState((s) => s.hovered)
  const asked = useHandState((s) => s.asked)
  const busy = useHandState((s) => s.shift !== null || s.editing !== null || s.tool !== 'select')
  const [rested, setRested] = useState<string | null>(null)
  const selected = useHandState((s) => (s.selected.size === 1 ? [...s.selected][0]! : null))
  useEffect(() => {
    const timer = setTimeout(() => setRested(hovered), hovered ? WAIT_MS : 0)
    return () => clearTimeout(timer)
  }, [hovered])
  useEffect(() => {
    if (!asked) return
    const timer = setTimeout(() => hand.set({ asked: null }), 4000)
    return () => clearTimeout(timer)
  }, [asked, hand])
  const mark = marks.find((m) => m.id === (asked ?? rested ?? selected))
  if (!mark?.author || busy || mark.at === 0) return null
  const agreed = mark.agreed ?? []
  return (
    <div
      data-part="author"
      className="pointer-events-none absolute start-3 bottom-3 z-10 flex max-w-[min(18rem,calc(100%-9rem))] items-center gap-2.5 rounded-xl border border-line bg-paper px-3 py-2 text-sm shadow-md"
    >
      <Face id={mark.author} name={hand.nameOf(mark.author)} />
      <span className="min-w-0">
        <span className="block truncate font-semibold">{hand.nameOf(mark.author)}</span>
        <span className="block text-slate">
          {t(`marks.${nameKey(mark)}`)} · {clock(mark.at)}
        </span>
        {agreed.length > 0 && (
          <span className="block text-slate">
            {t('marks.agreedBy', {
              names: agreed.slice(0, 6).map(hand.nameOf).join(', ') + (agreed.length > 6 ? ' …' : ''),
            })}
          </span>
        )}
      </span>
    </div>
  )
}
