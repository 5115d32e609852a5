import { LINE, SHAPE_TEXT } from '../paint/geometry'
import { PollCard } from '../../polls/PollCard'
import { Writing } from '../hand/Writing'
import { coverLook } from './CoverMark'
import type { Element } from '../../wire/types.gen'
import { TableMark } from './TableMark'
import { boxStyle, useMark } from './useMark'

type Prepared = Element & { kind: 'table' | 'poll' | 'cover' }

/** A table, a poll or a cover where it is prepared: picked up like any other mark. */
export default function PreparedMark({ mark }: { mark: Prepared }) {
  const { selected, editing, part, x, y, style } = useMark(mark)
  const writes = editing && mark.kind === 'cover'
  return (
    <div
      {...(writes ? { 'data-mark': mark.id, 'data-own-hand': true } : part)}
      className={`mark-box absolute cursor-grab ${selected ? 'outline-3 outline-dusk' : ''}`}
      style={boxStyle(mark, x, y, { ...style, height: mark.kind === 'poll' ? undefined : mark.h, minHeight: mark.h })}
    >
      <div inert={!writes} className="size-full">
        {mark.kind === 'table' && <TableMark mark={{ ...mark, x: 0, y: 0 }} />}
        {mark.kind === 'poll' && <PollCard mark={mark} phase="revealed" onFrame />}
        {mark.kind === 'cover' && (
          <div className={`size-full opacity-90 ${coverLook(mark)}`} style={{ fontSize: SHAPE_TEXT, lineHeight: LINE }}>
            {writes ? <Writing mark={mark} /> : <span dir="auto">{mark.cover.text}</span>}
          </div>
        )}
      </div>
    </div>
  )
}
