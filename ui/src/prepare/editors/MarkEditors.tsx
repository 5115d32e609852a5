import { useHand, useHandState } from '../../frame/hand/useHand'
import type { Element } from '../../wire/types.gen'
import { PollEditor } from './PollEditor'
import { TableEditor } from './TableEditor'

/** The windows in which polls and tables are written. */
export function MarkEditors({ marks }: { marks: readonly Element[] }) {
  const hand = useHand()
  const editing = useHandState((s) => s.editing)
  const mark = marks.find((m) => m.id === editing)
  const close = () => hand.set({ editing: null })
  if (mark?.kind === 'poll') return <PollEditor key={mark.id} mark={mark} onClose={close} />
  if (mark?.kind === 'table') return <TableEditor key={mark.id} mark={mark} onClose={close} />
  return null
}
