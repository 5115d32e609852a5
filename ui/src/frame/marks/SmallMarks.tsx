import { ExternalLink } from 'lucide-react'
import { memo } from 'react'
import type { Element } from '../../wire/types.gen'
import { hostOf, LINE, SHAPE_TEXT } from '../paint/geometry'
import { useHandState } from '../hand/useHand'
import { pictureURL } from '../pictures/pictures'
import { StampSign } from '../paint/stamps'
import { Writing } from '../hand/Writing'
import { boxStyle, useMark } from './useMark'

const outline = (selected: boolean) => (selected ? 'outline-3 outline-dusk' : '')

/** A stamp for a quick answer. */
export const StampMark = memo(function StampMark({
  mark,
  fixed,
}: {
  mark: Element & { kind: 'stamp' }
  fixed: boolean
}) {
  const { selected, part, x, y, style } = useMark(mark)
  return (
    <div
      {...(fixed ? {} : part)}
      className={`mark-box absolute rounded-full ${outline(selected)}`}
      style={boxStyle(mark, x, y, { ...style, height: mark.h })}
    >
      <StampSign sign={mark.stamp.sign} className="size-full" />
    </div>
  )
})

/** A picture, with words for those who do not see it. */
export const PictureMark = memo(function PictureMark({
  mark,
  fixed,
}: {
  mark: Element & { kind: 'picture' }
  fixed: boolean
}) {
  const { selected, editing, part, x, y, style } = useMark(mark)
  const narrow = useHandState((s) => s.writesBelow)
  const writes = editing && !narrow
  return (
    <div
      {...(fixed || writes ? { 'data-mark': mark.id } : part)}
      className={`mark-box absolute ${outline(selected)}`}
      style={boxStyle(mark, x, y, { ...style, height: mark.h })}
    >
      <img
        src={pictureURL(mark.picture.picture)}
        alt={mark.picture.alt ?? ''}
        draggable={false}
        decoding="async"
        className="pointer-events-none size-full object-fill"
      />
      {writes && (
        <div
          className="absolute inset-x-0 bottom-0 bg-paper p-3"
          style={{ fontSize: SHAPE_TEXT, lineHeight: LINE }}
          data-own-hand
        >
          <Writing mark={mark} />
        </div>
      )}
    </div>
  )
})

/** A link, with the host that it leads to in sight. */
export const LinkMark = memo(function LinkMark({ mark, fixed }: { mark: Element & { kind: 'link' }; fixed: boolean }) {
  const { selected, editing, part, x, y, style } = useMark(mark)
  const narrow = useHandState((s) => s.writesBelow)
  const host = hostOf(mark.link.url)
  const writes = editing && !narrow
  return (
    <div
      className="mark-box absolute flex items-center gap-4 rounded-2xl border-2 border-edge bg-paper px-5 py-3"
      style={boxStyle(mark, x, y, { ...style, minHeight: mark.h, fontSize: SHAPE_TEXT, lineHeight: 1.2 })}
    >
      {/* The mark is picked up all over; the way out beside it is a link of its own. */}
      <div
        {...(fixed || editing ? { 'data-mark': mark.id } : part)}
        className={`absolute -inset-0.5 rounded-2xl ${outline(selected)}`}
      />
      <span className={`relative min-w-0 grow break-words ${writes ? '' : 'pointer-events-none'}`}>
        {writes ? (
          <span data-own-hand>
            <Writing mark={mark} />
          </span>
        ) : (
          mark.link.title && (
            <span dir="auto" className="block font-semibold" aria-hidden={!fixed}>
              {mark.link.title}
            </span>
          )
        )}
        <span className="block text-slate" aria-hidden={!fixed}>
          {host}
        </span>
      </span>
      <a
        href={mark.link.url}
        target="_blank"
        rel="noreferrer noopener"
        aria-label={host}
        className="relative grid size-16 shrink-0 place-items-center rounded-xl bg-mist text-dusk"
      >
        <ExternalLink size={34} aria-hidden="true" />
      </a>
    </div>
  )
})
