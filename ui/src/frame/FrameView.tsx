import { Suspense, useLayoutEffect, useMemo, useRef, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element, Frame } from '../wire/types.gen'
import { fixedOn } from '../rules/pieces'
import { FRAME, PROMPT } from './paint/geometry'
import { useHand } from './hand/useHand'
import { Marks } from './Marks'
import { Paper } from './paint/Paper'
import { useSurface } from './hand/useSurface'
import { part } from '../kit/part'
import type { Head } from './paint/columns'

const Heads = part(() => import('./Heads'))

const REST_MS = 220

type Props = {
  frame: Frame
  marks: readonly Element[]
  /** Whether the prompt is painted on the frame (a phone shows it above). */
  prompt: boolean
  /** Paints a poll of the frame; left out where polls are shown elsewhere. */
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  /** Paints a cover that somebody may lift. */
  cover?: (mark: Element & { kind: 'cover' }) => ReactNode
  /** The columns in which notes lie. */
  heads: readonly Head[]
  /** Lies over everything, in frame units. */
  over?: ReactNode
}

/**
 * A frame, large, with everything on it as real, focusable parts. It always
 * fits its place; zoom goes into it. Moving and zooming change one transform
 * and paint nothing anew.
 */
export function FrameView({ frame, marks, prompt, poll, cover, heads, over }: Props) {
  const { t } = useTranslation()
  const fixed = useMemo(() => fixedOn(frame), [frame])
  const hand = useHand()
  const viewport = useRef<HTMLDivElement>(null)
  const world = useRef<HTMLDivElement>(null)
  const tools = useRef<HTMLDivElement>(null)
  useSurface(viewport)

  useLayoutEffect(() => {
    const at = viewport.current
    const to = world.current
    if (!at || !to) return
    const place = () => {
      const { zoom, x, y } = hand.now.view
      const scale = Math.min(at.clientWidth / FRAME.width, at.clientHeight / FRAME.height) * zoom
      const seen = {
        w: (at.clientWidth * zoom) / scale || FRAME.width,
        h: (at.clientHeight * zoom) / scale || FRAME.height,
      }
      hand.see(scale, seen, (clientX, clientY) => {
        const box = to.getBoundingClientRect()
        return { x: (clientX - box.left) / scale, y: (clientY - box.top) / scale }
      })
      to.style.transform = `translate(${at.clientWidth / 2 - x * scale}px, ${at.clientHeight / 2 - y * scale}px) scale(${scale})`
      // Grips and guides keep their size on the screen. Only their layer is told: marks are not styled anew.
      tools.current?.style.setProperty('--u', String(1 / (scale || 1)))
    }
    place()
    const watch = new ResizeObserver(place)
    watch.observe(at)
    // While the view moves, the frame is one picture that is moved and scaled; at rest it is painted sharp.
    let rests = 0
    const stop = hand.state.subscribe((now, before) => {
      if (now.view === before.view) return
      to.style.willChange = 'transform'
      clearTimeout(rests)
      rests = window.setTimeout(() => (to.style.willChange = ''), REST_MS)
      place()
    })
    return () => {
      clearTimeout(rests)
      watch.disconnect()
      stop()
    }
  }, [hand])

  return (
    <div
      ref={viewport}
      className="relative size-full touch-none overflow-clip outline-none select-none"
      data-part="viewport"
    >
      <section
        ref={world}
        aria-label={t(hand.ground.preparing ? 'frame.labelPreparing' : 'frame.label', { title: frame.title })}
        // Places on a frame count from the left in every language; words find their own direction.
        dir="ltr"
        className="absolute top-0 left-0 origin-top-left overflow-clip bg-ground shadow-[0_1px_8px] shadow-night/15"
        style={{ width: FRAME.width, height: FRAME.height }}
        data-part="frame"
        data-dark={frame.paper.dark ? '' : undefined}
      >
        <Paper paper={frame.paper} />
        {prompt && frame.prompt && (
          <h2
            dir="auto"
            className="pointer-events-none absolute leading-[1.15] text-on-ground"
            style={{ left: PROMPT.x, top: PROMPT.y, width: PROMPT.width, fontSize: PROMPT.size }}
          >
            {frame.prompt}
          </h2>
        )}
        {heads.length > 0 && (
          <Suspense fallback={null}>
            <Heads heads={heads} />
          </Suspense>
        )}
        <Marks marks={fixed} all={fixed} poll={poll} cover={cover} fixed />
        <Marks marks={marks} all={marks} poll={poll} cover={cover} />
        {/* A layer of its own: what grows here does not repaint the marks below. */}
        <div ref={tools} className="pointer-events-none absolute inset-0 will-change-transform" data-part="tools">
          {over}
        </div>
      </section>
    </div>
  )
}
