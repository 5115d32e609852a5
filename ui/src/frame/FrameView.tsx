import { useEffect, useImperativeHandle, useLayoutEffect, useRef, useState, type ReactNode, type Ref } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element, Frame } from '../wire/types.gen'
import { FRAME, PROMPT } from './geometry'
import { Marks, type MarkActions } from './Marks'
import { Paper } from './Paper'

type Props = {
  frame: Frame
  marks: readonly Element[]
  actions: MarkActions
  /** Whether the prompt is painted on the frame (a phone shows it above). */
  prompt: boolean
  zoom?: number
  /** Paints a poll of the frame; left out where polls are shown elsewhere. */
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  /** Lies over everything: ink that is being drawn. */
  over?: (scale: number) => ReactNode
  onGround?: () => void
  onScale?: (scale: number) => void
  /** The middle of what is seen, in frame units. */
  middle?: Ref<() => { x: number; y: number }>
}

/** A frame, large, with everything on it as real, focusable parts. It always fits its place; zoom goes into it. */
export function FrameView({ frame, marks, actions, prompt, zoom = 1, poll, over, onGround, onScale, middle }: Props) {
  const { t } = useTranslation()
  const viewport = useRef<HTMLDivElement>(null)
  const [fit, setFit] = useState(0)
  const scale = fit * zoom

  useLayoutEffect(() => {
    const at = viewport.current
    if (!at) return
    const measure = () => setFit(Math.min(at.clientWidth / FRAME.width, at.clientHeight / FRAME.height))
    measure()
    const watch = new ResizeObserver(measure)
    watch.observe(at)
    return () => watch.disconnect()
  }, [])

  useEffect(() => onScale?.(scale), [scale, onScale])
  useImperativeHandle(middle, () => () => {
    const at = viewport.current
    if (!at || scale === 0) return { x: FRAME.width / 2, y: FRAME.height / 2 }
    const x = (at.scrollLeft + Math.min(at.clientWidth, FRAME.width * scale) / 2) / scale
    const y = (at.scrollTop + Math.min(at.clientHeight, FRAME.height * scale) / 2) / scale
    return { x, y }
  })

  return (
    <div ref={viewport} className={`flex size-full ${zoom > 1 ? 'overflow-auto' : 'overflow-hidden'}`}>
      <section
        aria-label={t('frame.label', { title: frame.title })}
        className="relative m-auto shrink-0 overflow-hidden rounded-sm bg-paper shadow-[0_1px_8px] shadow-night/15"
        style={{ width: FRAME.width * scale, height: FRAME.height * scale }}
      >
        <div
          className="absolute top-0 left-0 origin-top-left"
          style={{ width: FRAME.width, height: FRAME.height, transform: `scale(${scale})` }}
        >
          <div className="absolute inset-0" onPointerDown={onGround}>
            <Paper paper={frame.paper} />
          </div>
          {prompt && (
            <h2
              className="pointer-events-none absolute leading-[1.15]"
              style={{ left: PROMPT.x, top: PROMPT.y, width: PROMPT.width, fontSize: PROMPT.size }}
            >
              {frame.prompt}
            </h2>
          )}
          <Marks marks={frame.fixed} scale={scale} poll={poll} />
          <Marks marks={marks} scale={scale} actions={actions} />
          {over?.(scale)}
        </div>
      </section>
    </div>
  )
}
