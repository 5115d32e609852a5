import { useState, type KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import type { PlacePoint } from '../../wire/types.gen'
import { PictureAreas } from '../charts/PictureAreas'
import { give, type AnswerProps } from './props'

/** How far an arrow key moves a place, as a share of the picture. */
const STEP = 0.02
const within = (x: number) => Math.round(Math.min(1, Math.max(0, x)) * 10_000) / 10_000

/** A picture at which one points: by pressing on it, or with a button and the arrow keys. */
export function Places({ asked, given, open, revealed, onGive }: AnswerProps<'places'>) {
  const { t } = useTranslation()
  const { picture, areas, most } = asked.places
  const [moving, setMoving] = useState<PlacePoint[] | null>(null)
  const at = moving ?? given?.places.at ?? []
  const may = open && onGive !== undefined
  function put(to: PlacePoint[]) {
    setMoving(to)
    onGive?.({ kind: 'places', places: { at: to } })
  }
  // Of one place a press moves it; of several it adds one, and the oldest goes.
  const add = (p: PlacePoint) => put([...at, p].slice(-most))
  function nudge(i: number, e: KeyboardEvent) {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key]
    if (!by) return
    e.preventDefault()
    put(at.map((p, k) => (k === i ? { x: within(p.x + by[0]! * STEP), y: within(p.y + by[1]! * STEP) } : p)))
  }
  return (
    <div className="flex flex-col gap-[0.6em]" dir="ltr">
      <div className="relative w-fit max-w-full">
        {/* oxlint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-noninteractive-element-interactions -- the button below does it for keys */}
        <img
          src={pictureURL(picture)}
          alt=""
          draggable={false}
          onClick={(e) => {
            if (!may) return
            const box = e.currentTarget.getBoundingClientRect()
            add({ x: within((e.clientX - box.left) / box.width), y: within((e.clientY - box.top) / box.height) })
          }}
          className={`block max-h-[60vh] max-w-full rounded-[0.4em] ${may ? 'cursor-crosshair' : ''}`}
        />
        {revealed && <PictureAreas areas={areas ?? []} />}
        {at.map((p, i) => (
          <button
            key={i}
            type="button"
            disabled={!may}
            aria-label={t('poll.place', { n: i + 1, x: Math.round(p.x * 100), y: Math.round(p.y * 100) })}
            onKeyDown={(e) => nudge(i, e)}
            className="absolute grid size-[1.8em] -translate-1/2 place-items-center rounded-full border-2 border-paper bg-dusk font-bold text-paper shadow-md"
            style={{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }}
          >
            {most > 1 ? i + 1 : '●'}
          </button>
        ))}
      </div>
      {may && at.length < most && (
        <button type="button" className={give} onClick={() => add({ x: 0.5, y: 0.5 })}>
          {t('poll.addPlace')}
        </button>
      )}
    </div>
  )
}
