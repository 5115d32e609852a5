import { useCallback, useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { FrameView } from '../frame/FrameView'
import { Hand } from '../frame/hand/hand'
import { HandProvider } from '../frame/hand/useHand'
import { Overlay } from '../frame/Overlay'
import { useCounts } from '../frame/useCounts'
import { useColumns } from '../frame/useColumns'
import type { From } from '../frame/paint/columns'
import { PollCard } from '../polls/PollCard'
import { laid } from '../rules/pieces'
import type { Shown } from '../wire/sheets'
import type { Element, Frame, PollState } from '../wire/types.gen'
import { useBench, useBenchState } from '../wire/hooks/useLesson'

const nothing: Element[] = []
const noHeads: never[] = []
const fromFirst: From = {}

type Props = {
  frame: Frame
  sheet: Shown | undefined
  polls: Record<string, PollState>
  /** From which note on each column is shown. */
  from?: From
}

/** A frame on the front screen, live, with no hand on it: nothing there can be touched or focused. */
export function FrontFrame({ frame, sheet, polls, from = fromFirst }: Props) {
  const { t } = useTranslation()
  const bench = useBench()
  const people = useBenchState((s) => s.people)
  const onSheet = sheet?.marks ?? nothing
  const { marks, margin, replies, under } = useMemo(() => laid(frame, onSheet), [frame, onSheet])
  const ground = { frame, sheet: null, saved: marks, me: '', works: false, preparing: false }
  const [hand] = useState(() => new Hand(bench, { ...ground, marks, columns: null }, 'select'))
  useEffect(() => hand.set({ from }), [hand, from])
  const nameOf = useCallback(
    (author: string | undefined) =>
      author === 'staff' ? t('frame.teacher') : (people.get(author ?? '')?.name ?? t('frame.somebody')),
    [people, t],
  )
  const { marks: standing, columns } = useColumns(frame, marks, from, nameOf)
  useCounts(hand, replies, under)
  hand.stand({ ...ground, marks: standing, columns }, nameOf)
  return (
    <HandProvider value={hand}>
      <div inert data-day className="relative size-full text-night">
        <FrameView
          frame={frame}
          marks={standing}
          prompt
          poll={(mark) => <PollCard mark={mark} phase={polls[mark.id]?.phase ?? 'closed'} onFrame />}
          heads={columns?.heads ?? noHeads}
          over={<Overlay sheet={sheet?.sheet ?? null} marks={standing} />}
        />
        {margin.length > 0 && (
          <p className="absolute start-[1cqw] bottom-[1cqh] rounded-[1cqh] bg-night px-[1.5cqh] text-[3cqh] font-semibold text-paper">
            {t('front.beside', { count: margin.length })}
          </p>
        )}
      </div>
    </HandProvider>
  )
}
