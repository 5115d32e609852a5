import { useEffect, useRef, useState, type PointerEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { isSupply, type Lying } from '../../rules/pieces'
import { paintPiece } from '../paint/canvas'
import { textOf } from '../paint/geometry'
import { useHand } from '../hand/useHand'
import { nameKey } from '../marks/useMark'

/** How far a hand must move before it takes a piece along, in screen pixels. */
const TAKES_PX = 8

/** Pieces that lie beside the frame. Each is pulled onto it, or put there with one tap. */
export default function Tray({ pieces }: { pieces: readonly Lying[] }) {
  const { t } = useTranslation()
  return (
    <ul
      aria-label={t('frame.tray')}
      data-part="tray"
      className="flex shrink-0 gap-2 overflow-auto border-line bg-mist p-2 max-sm:border-b sm:w-32 sm:flex-col sm:border-e"
    >
      {pieces.map((piece) => (
        <li key={piece.id} className="shrink-0">
          <TrayPiece piece={piece} />
        </li>
      ))}
    </ul>
  )
}

function TrayPiece({ piece }: { piece: Lying }) {
  const { t } = useTranslation()
  const hand = useHand()
  const [pull, setPull] = useState<{ from: { x: number; y: number }; x: number; y: number; far: boolean } | null>(null)
  const pulled = useRef(false)
  const what = t(`marks.${nameKey(piece)}`)
  const name = [what, textOf(piece)].filter(Boolean).join(': ')
  const move = (e: PointerEvent) => {
    if (!pull) return
    const far = pull.far || Math.hypot(e.clientX - pull.from.x, e.clientY - pull.from.y) > TAKES_PX
    setPull({ ...pull, x: e.clientX, y: e.clientY, far })
  }
  const up = (e: PointerEvent) => {
    setPull(null)
    pulled.current = pull?.far ?? false
    if (!pull?.far) return
    const on = document.elementsFromPoint(e.clientX, e.clientY).some((part) => part.closest('[data-part="viewport"]'))
    if (on) hand.takeOut(piece, hand.toFrame(e.clientX, e.clientY))
  }
  return (
    <>
      <button
        type="button"
        disabled={!hand.ground.works}
        aria-label={t(isSupply(piece) ? 'frame.takeCopy' : 'frame.takePiece', { name })}
        title={isSupply(piece) ? t('frame.endless') : undefined}
        className="relative grid min-h-14 w-28 cursor-grab touch-pan-x place-items-center rounded-lg border border-edge bg-paper p-1.5 hover:border-dusk sm:touch-pan-y"
        onPointerDown={(e) => {
          if (!hand.ground.works || e.button !== 0) return
          e.currentTarget.setPointerCapture(e.pointerId)
          setPull({ from: { x: e.clientX, y: e.clientY }, x: e.clientX, y: e.clientY, far: false })
        }}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => setPull(null)}
        onClick={() => {
          // The end of a pull is a click, too.
          if (!pulled.current) hand.takeOut(piece)
          pulled.current = false
        }}
      >
        <PiecePicture piece={piece} />
        {isSupply(piece) && (
          <span aria-hidden="true" className="absolute end-1 top-0 text-base leading-tight font-bold text-dusk">
            ∞
          </span>
        )}
      </button>
      {pull?.far && (
        <div
          className="pointer-events-none fixed z-50 w-28 -translate-1/2 opacity-80"
          style={{ left: pull.x, top: pull.y }}
        >
          <PiecePicture piece={piece} />
        </div>
      )}
    </>
  )
}

function PiecePicture({ piece }: { piece: Lying }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    let there = true
    const draw = () =>
      void (there && canvas.current && paintPiece(canvas.current, piece, 100, 64, devicePixelRatio, draw))
    draw()
    void document.fonts.ready.then(draw)
    return () => void (there = false)
  }, [piece])
  return <canvas ref={canvas} aria-hidden="true" className="pointer-events-none mx-auto block max-w-full" />
}
