import { useHand, useHandState } from '../../frame/hand/useHand'
import type { Element } from '../../wire/types.gen'
import { PollEditor } from './PollEditor'
import { TableEditor } from './TableEditor'

/** The questions beside one in whose place it may be asked. */
export const besides = (marks: readonly Element[], id: string) =>
  marks.filter((m): m is Element & { kind: 'poll' } => m.kind === 'poll' && m.id !== id && !m.poll.insteadOf)

/** The windows in which polls and tables are written. */
export function MarkEditors({ marks }: { marks: readonly Element[] }) {
  const hand = useHand()
  const editing = useHandState((s) => s.editing)
  const mark = marks.find((m) => m.id === editing)
  const close = () => hand.set({ editing: null })
  if (mark?.kind === 'poll')
    return (
      <PollEditor
        key={mark.id}
        mark={mark}
        others={besides(marks, mark.id)}
        onSave={(poll) => hand.do([{ kind: 'set', set: { mark: mark.id, poll } }])}
        onClose={close}
      />
    )
  if (mark?.kind === 'table') return <TableEditor key={mark.id} mark={mark} onClose={close} />
  return null
}
