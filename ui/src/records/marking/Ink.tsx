import { Eraser, Pen, Undo2 } from 'lucide-react'
import { useRef, type PointerEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { inkFill } from '../../frame/paint/colours'
import { FRAME } from '../../frame/paint/geometry'
import { outlinePath, strokePath } from '../../frame/paint/outline'
import { Button } from '../../kit/Button'
import { boxed } from '../../rules/erase'
import type { Element } from '../../wire/types.gen'

/** Points closer than this add nothing (frame units). */
const APART = 2.5
const WIDTH = 5
/** As many lines as core/assess takes. */
const MOST = 200
const INK = 'ember'

type ToolsProps = { ink: readonly Element[]; drawing: boolean; onDrawing: () => void; onInk: (to: Element[]) => void }

/** Whether one draws on the work, and how lines go away again. */
export function InkTools({ ink, drawing, onDrawing, onInk }: ToolsProps) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-wrap gap-2">
      <Button look={drawing ? 'main' : 'plain'} aria-pressed={drawing} aria-keyshortcuts="p" onClick={onDrawing}>
        <Pen size={17} aria-hidden="true" />
        {t('marking.draw')}
      </Button>
      {ink.length > 0 && (
        <>
          <Button look="quiet" onClick={() => onInk(ink.slice(0, -1))}>
            <Undo2 size={17} aria-hidden="true" className="rtl:-scale-x-100" />
            {t('marking.undoLine')}
          </Button>
          <Button look="quiet" onClick={() => onInk([])}>
            <Eraser size={17} aria-hidden="true" />
            {t('marking.wipe')}
          </Button>
        </>
      )}
    </div>
  )
}

type LayerProps = {
  ink: readonly Element[]
  /** What other teachers drew, as far as one may see it. */
  others: readonly Element[]
  drawing: boolean
  onInk: (to: Element[]) => void
}

/** What is drawn on a picture of somebody's work; the pen draws over it. */
export function InkLayer({ ink, others, drawing, onInk }: LayerProps) {
  const live = useRef<SVGPathElement>(null)
  const line = useRef<{ pointer: number; points: number[] } | null>(null)
  /** A pen was seen: what touches the screen is a palm. */
  const pen = useRef(false)

  function add(svg: SVGSVGElement, e: { clientX: number; clientY: number; pressure: number; pointerType: string }) {
    const box = svg.getBoundingClientRect()
    const within = (n: number, most: number) => Math.max(0, Math.min(most, n))
    const x = within(((e.clientX - box.left) * FRAME.width) / box.width, FRAME.width)
    const y = within(((e.clientY - box.top) * FRAME.height) / box.height, FRAME.height)
    const { points } = line.current!
    const [lastX, lastY] = points.slice(-3)
    if (lastX !== undefined && Math.hypot(x - lastX, y - lastY!) < APART) return
    points.push(x, y, e.pointerType === 'pen' ? within(Math.round(e.pressure * 100) / 100, 1) : 0.5)
  }
  const show = () => live.current?.setAttribute('d', line.current ? outlinePath(line.current.points, WIDTH, '') : '')
  function down(e: PointerEvent<SVGSVGElement>) {
    if (!drawing || e.button !== 0 || line.current || ink.length >= MOST) return
    if (e.pointerType === 'touch' && pen.current) return
    pen.current ||= e.pointerType === 'pen'
    e.preventDefault()
    e.currentTarget.setPointerCapture(e.pointerId)
    line.current = { pointer: e.pointerId, points: [] }
    add(e.currentTarget, e)
    show()
  }
  function move(e: PointerEvent<SVGSVGElement>) {
    if (line.current?.pointer !== e.pointerId) return
    const steps = e.nativeEvent.getCoalescedEvents?.() ?? []
    for (const step of steps.length > 0 ? steps : [e.nativeEvent]) add(e.currentTarget, step)
    show()
  }
  function up(e: PointerEvent<SVGSVGElement>, keep: boolean) {
    if (line.current?.pointer !== e.pointerId) return
    const { points } = line.current
    line.current = null
    show()
    if (!keep) return
    const { place, own } = boxed(points)
    const stroke = { points: own, ink: INK, width: WIDTH } as const
    onInk([...ink, { id: uuidv7(), z: 0, at: 0, ...place, kind: 'stroke', stroke }])
  }
  const drawn = (all: readonly Element[]) =>
    all.map((e) => e.kind === 'stroke' && <path key={e.id} d={strokePath(e)} className={inkFill[e.stroke.ink]} />)
  return (
    <svg
      aria-hidden="true"
      data-part="ink"
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      className={`absolute inset-0 size-full ${drawing ? 'cursor-crosshair touch-none' : 'pointer-events-none'}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={(e) => up(e, true)}
      onPointerCancel={(e) => up(e, false)}
    >
      <g opacity={0.6}>{drawn(others)}</g>
      {drawn(ink)}
      <path ref={live} className={inkFill[INK]} />
    </svg>
  )
}
