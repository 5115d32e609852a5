import { useRef, useState, type PointerEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import { Button } from '../../kit/Button'
import type { PlaceArea, PlacePoint } from '../../wire/types.gen'
import { PictureAreas } from '../charts/PictureAreas'
import { option } from '../kinds'
import { MistakeName } from './MistakeName'
import { field, type FieldsProps } from './props'
import { Rows } from './Rows'

/** Less than this is a press, not an area: a share of the picture. */
const LEAST = 0.02
const round = (x: number) => Math.round(Math.min(1, Math.max(0, x)) * 1000) / 1000

const boxOf = (a: PlacePoint, b: PlacePoint): PlacePoint[] => {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  const [r, d] = [Math.max(a.x, b.x), Math.max(a.y, b.y)]
  return [
    { x, y },
    { x: r, y },
    { x: r, y: d },
    { x, y: d },
  ]
}

/** How many corners an area has at most (core/poll), and how far apart those of a drawn one are. */
const MOST = 60
const APART = 0.012

/** The corners of a line that was drawn around something: no more than an area may have. */
export function cornersOf(line: PlacePoint[]): PlacePoint[] {
  const far: PlacePoint[] = []
  for (const p of line) {
    const last = far.at(-1)
    if (!last || Math.hypot(p.x - last.x, p.y - last.y) > APART) far.push(p)
  }
  const every = Math.ceil(far.length / MOST)
  return far.filter((_, i) => i % every === 0)
}

/** Whether an area is a box, which can be written in percent. */
const isBox = ({ corners: [a, b, c, d], corners }: PlaceArea) =>
  corners.length === 4 && a!.y === b!.y && b!.x === c!.x && c!.y === d!.y && d!.x === a!.x

const fresh = (corners: PlacePoint[]): PlaceArea => ({ id: option().id, name: '', corners, right: true })

/** A picture with areas: drawn over it, or written in percent. */
export function PlacesFields({ asked, onAsked, pick }: FieldsProps<'places'>) {
  const { t } = useTranslation()
  const { places } = asked
  const areas = places.areas ?? []
  const over = useRef<HTMLDivElement>(null)
  const [from, setFrom] = useState<PlacePoint | null>(null)
  const [to, setTo] = useState<PlacePoint | null>(null)
  const [free, setFree] = useState(false)
  const [line, setLine] = useState<PlacePoint[]>([])
  const put = (part: Partial<typeof places>) => onAsked({ kind: 'places', places: { ...places, ...part } })
  const at = (e: PointerEvent) => {
    const box = over.current!.getBoundingClientRect()
    return { x: round((e.clientX - box.left) / box.width), y: round((e.clientY - box.top) / box.height) }
  }
  function up(end: PlacePoint) {
    const corners = free ? cornersOf(line) : from && boxOf(from, end)
    const wide = (side: 'x' | 'y') =>
      corners && Math.max(...corners.map((c) => c[side])) - Math.min(...corners.map((c) => c[side])) > LEAST
    if (corners && corners.length > 2 && wide('x') && wide('y') && areas.length < 20)
      put({ areas: [...areas, fresh(corners)] })
    setFrom(null)
    setTo(null)
  }
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        {pick && <Button onClick={() => pick(({ id }) => put({ picture: id }))}>{t('question.placesPicture')}</Button>}
        <label className="flex items-center gap-2">
          {t('question.placesMost')}
          <input
            type="number"
            min={1}
            max={10}
            value={places.most}
            onChange={(e) => put({ most: Math.min(10, Math.max(1, e.target.valueAsNumber || 1)) })}
            className={`${field} w-20`}
          />
        </label>
      </div>
      {places.picture && (
        <div
          ref={over}
          className="relative w-fit max-w-full touch-none select-none"
          dir="ltr"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId)
            setLine([at(e)])
            setFrom(at(e))
            setTo(at(e))
          }}
          onPointerMove={(e) => {
            if (!from) return
            const here = at(e)
            setLine((before) => [...before, here])
            setTo(at(e))
          }}
          onPointerUp={(e) => up(at(e))}
          onPointerCancel={() => setFrom(null)}
        >
          <img
            src={pictureURL(places.picture)}
            alt=""
            draggable={false}
            className="block max-h-[40vh] max-w-full rounded"
          />
          <PictureAreas areas={from && to ? [...areas, fresh(free ? cornersOf(line) : boxOf(from, to))] : areas} />
        </div>
      )}
      {places.picture && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-dusk"
            checked={free}
            onChange={(e) => setFree(e.target.checked)}
          />
          {t('question.drawFree')}
        </label>
      )}
      {places.picture && <p className="text-sm text-slate">{t('question.placesHint')}</p>}
      {places.picture && (
        <Rows<PlaceArea>
          legend={t('question.areas')}
          rows={areas}
          keyOf={(a) => a.id}
          onRows={(next) => put({ areas: next })}
          fresh={() => fresh(boxOf({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 }))}
          least={0}
          most={20}
          add={t('question.addArea')}
          drop={(n) => t('question.dropArea', { n })}
        >
          {(a, i, set) => (
            <>
              <input
                type="checkbox"
                className="size-5 accent-fern"
                checked={a.right ?? false}
                onChange={(e) => set({ right: e.target.checked || undefined, mistake: undefined })}
                aria-label={t('question.isRight', { n: i + 1 })}
                title={t('question.markRight')}
              />
              <input
                aria-label={t('question.areaName', { n: i + 1 })}
                placeholder={t('question.areaName', { n: i + 1 })}
                value={a.name}
                maxLength={60}
                dir="auto"
                onChange={(e) => set({ name: e.target.value })}
                className={`${field} grow`}
              />
              {!a.right && (
                <MistakeName n={i + 1} name={a.mistake} onName={(to) => set({ mistake: to || undefined })} />
              )}
              <Edges area={a} n={i + 1} onCorners={(corners) => set({ corners })} />
            </>
          )}
        </Rows>
      )}
    </div>
  )
}

/** Where an area of four corners lies, in percent: another way than drawing it. */
function Edges({ area, n, onCorners }: { area: PlaceArea; n: number; onCorners: (to: PlacePoint[]) => void }) {
  const { t } = useTranslation()
  if (!isBox(area)) return null
  const [a, , c] = area.corners as [PlacePoint, PlacePoint, PlacePoint, PlacePoint]
  const edges = { left: a.x, top: a.y, right: c.x, bottom: c.y }
  return (
    <>
      {(['left', 'top', 'right', 'bottom'] as const).map((edge) => (
        <input
          key={edge}
          type="number"
          min={0}
          max={100}
          aria-label={t(`question.edge_${edge}`, { n })}
          title={t(`question.edge_${edge}`, { n })}
          value={Math.round(edges[edge] * 100)}
          onChange={(e) => {
            const next = { ...edges, [edge]: round((e.target.valueAsNumber || 0) / 100) }
            onCorners(boxOf({ x: next.left, y: next.top }, { x: next.right, y: next.bottom }))
          }}
          className={`${field} w-16 px-1 text-sm`}
        />
      ))}
    </>
  )
}
