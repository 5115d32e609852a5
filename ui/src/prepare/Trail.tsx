import { Copy, Ellipsis, LayoutGrid, Plus, Trash2 } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { arrangementSign } from '../kit/arrangement'
import { Button } from '../kit/Button'
import { BOARD_PILE } from '../wire/desk'
import { codeOf } from '../wire/http'
import type { Frame } from '../wire/types.gen'
import { AddFrame } from './AddFrame'
import { Overview } from './Overview'
import { SaveTemplate } from './SaveTemplate'
import { useDesk, useDeskState } from './useDesk'

type Props = { frames: Frame[]; at: string; onOpen: (frame: string) => void }

/** How far a hand must move before it takes a frame along, in screen pixels. */
const TAKES_PX = 8

/** The board as a way with stations: add, order, duplicate and delete frames, one or many at once. */
export function Trail({ frames, at, onOpen }: Props) {
  const { t } = useTranslation()
  const desk = useDesk()
  const canUndo = useDeskState((s) => s.canUndo.has(BOARD_PILE))
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [dialog, setDialog] = useState<'add' | 'overview' | 'template' | null>(null)
  const [deleted, setDeleted] = useState(0)
  const list = useRef<HTMLDivElement>(null)
  const chosen = frames.filter((f) => picked.has(f.id) || f.id === at).map((f) => f.id)
  const index = frames.findIndex((f) => f.id === at)

  function focus(id: string) {
    onOpen(id)
    requestAnimationFrame(() => list.current?.querySelector<HTMLElement>(`[data-frame="${id}"]`)?.focus())
  }
  function only(id: string) {
    setPicked(new Set())
    focus(id)
  }
  function reach(id: string) {
    const to = frames.findIndex((f) => f.id === id)
    const [a, b] = [Math.min(index, to), Math.max(index, to)]
    setPicked(new Set(frames.slice(a, b + 1).map((f) => f.id)))
  }
  /** Moves the chosen frames so that they stand before a place. */
  function place(before: number) {
    const rest = frames.map((f) => f.id)
    const behind = rest.slice(before).filter((id) => !chosen.includes(id))
    const ahead = rest.slice(0, before).filter((id) => !chosen.includes(id))
    const next = [...ahead, ...chosen, ...behind]
    if (next.join() !== rest.join()) desk.change({ kind: 'order', order: { frames: next } })
  }
  function step(by: -1 | 1) {
    const first = frames.findIndex((f) => f.id === chosen[0])
    const last = frames.findIndex((f) => f.id === chosen.at(-1))
    place(by < 0 ? Math.max(0, first - 1) : Math.min(frames.length, last + 2))
  }
  function drop() {
    if (chosen.length === frames.length) return desk.tell('last-frame')
    const left = frames.filter((f) => !chosen.includes(f.id))
    const ahead = frames.slice(0, index).filter((f) => !chosen.includes(f.id)).length
    desk.change({ kind: 'drop', drop: { frames: chosen } })
    // The focus goes to what takes the place of the deleted frame.
    only(left[Math.min(ahead, left.length - 1)]!.id)
    setDeleted(chosen.length)
  }
  async function double() {
    try {
      const last = frames.findIndex((f) => f.id === chosen.at(-1))
      const [first] = await desk.add(last + 1, { kind: 'double', double: { frames: chosen } })
      if (first) only(first)
    } catch (error) {
      desk.tell(codeOf(error))
    }
  }

  function key(e: KeyboardEvent) {
    const side = (e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0) * wayOf(list.current!)
    const command = e.ctrlKey || e.metaKey
    const next =
      side !== 0 ? frames[index + side] : e.key === 'Home' ? frames[0] : e.key === 'End' ? frames.at(-1) : null
    if (side !== 0 && e.altKey) step(side as 1 | -1)
    else if (next && e.shiftKey) {
      setPicked(new Set([...picked, at, next.id]))
      focus(next.id)
    } else if (next) only(next.id)
    else if (e.key === 'Delete' || e.key === 'Backspace') drop()
    else if (command && e.key.toLowerCase() === 'd') void double()
    else if (command && e.key.toLowerCase() === 'a') setPicked(new Set(frames.map((f) => f.id)))
    else if (command && e.key.toLowerCase() === 'z') {
      if (e.shiftKey) desk.redo(BOARD_PILE)
      else desk.undo(BOARD_PILE)
    } else if (command && e.key.toLowerCase() === 'y') desk.redo(BOARD_PILE)
    else return
    e.preventDefault()
    e.stopPropagation()
  }

  return (
    <nav
      aria-label={t('prepare.trail')}
      className="flex items-stretch border-b border-line bg-linear-to-b from-paper to-snow max-sm:flex-col"
      data-part="trail"
    >
      <div
        ref={list}
        role="listbox"
        tabIndex={-1}
        aria-label={t('prepare.frames')}
        aria-multiselectable
        aria-orientation="horizontal"
        aria-describedby="trail-keys"
        onKeyDown={key}
        className="flex min-w-0 grow overflow-x-auto px-3 pt-2 pb-2"
      >
        {frames.map((frame, i) => (
          <Station
            key={frame.id}
            frame={frame}
            n={i + 1}
            last={i === frames.length - 1}
            on={frame.id === at}
            picked={picked.size > 1 && picked.has(frame.id)}
            onPick={(e) => {
              if (e.shiftKey) reach(frame.id)
              else if (e.ctrlKey || e.metaKey) setPicked(new Set([...picked, at, frame.id]))
              else only(frame.id)
            }}
            onDrop={(x) => place(placeAt(list.current!, x))}
          />
        ))}
      </div>
      <p id="trail-keys" hidden>
        {t('prepare.trailKeys')}
      </p>
      <div className="flex shrink-0 items-center gap-1.5 border-line px-3 max-sm:border-t max-sm:py-1.5 sm:border-s">
        <Button onClick={() => setDialog('add')}>
          <Plus size={17} aria-hidden="true" />
          {t('prepare.add')}
        </Button>
        <Button
          look="quiet"
          aria-label={t('prepare.double', { count: chosen.length })}
          title={t('prepare.double', { count: chosen.length })}
          onClick={() => void double()}
        >
          <Copy size={17} aria-hidden="true" />
        </Button>
        <Button
          look="quiet"
          aria-label={t('prepare.drop', { count: chosen.length })}
          title={t('prepare.drop', { count: chosen.length })}
          disabled={chosen.length === frames.length}
          onClick={drop}
        >
          <Trash2 size={17} aria-hidden="true" />
        </Button>
        <Button
          look="quiet"
          aria-label={t('prepare.overview')}
          title={t('prepare.overview')}
          onClick={() => setDialog('overview')}
        >
          <LayoutGrid size={17} aria-hidden="true" />
        </Button>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild>
            <Button look="quiet" aria-label={t('prepare.moreFrame')} title={t('prepare.moreFrame')}>
              <Ellipsis size={17} aria-hidden="true" />
            </Button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              className="z-30 min-w-56 rounded-xl border border-line bg-paper p-1.5 shadow-lg"
            >
              {(
                [
                  ['saveTemplate', () => setDialog('template')],
                  ['earlier', () => step(-1)],
                  ['later', () => step(1)],
                  ['all', () => setPicked(new Set(frames.map((f) => f.id)))],
                ] as const
              ).map(([name, act]) => (
                <DropdownMenu.Item
                  key={name}
                  onSelect={act}
                  className="cursor-pointer rounded-lg px-3 py-1.5 outline-none data-highlighted:bg-mist"
                >
                  {t(`prepare.${name}`)}
                </DropdownMenu.Item>
              ))}
              {canUndo && (
                <DropdownMenu.Item
                  onSelect={() => desk.undo(BOARD_PILE)}
                  className="cursor-pointer rounded-lg px-3 py-1.5 outline-none data-highlighted:bg-mist"
                >
                  {t('prepare.undoTrail')}
                </DropdownMenu.Item>
              )}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <Deleted count={deleted} onUndo={() => desk.undo(BOARD_PILE)} onDone={() => setDeleted(0)} />
      {dialog === 'add' && (
        <AddFrame
          at={index + 1}
          onClose={() => setDialog(null)}
          onAdded={(ids) => {
            setDialog(null)
            if (ids[0]) only(ids[0])
          }}
        />
      )}
      {dialog === 'overview' && (
        <Overview
          frames={frames}
          at={at}
          onOpen={(id) => (setDialog(null), only(id))}
          onClose={() => setDialog(null)}
        />
      )}
      {dialog === 'template' && <SaveTemplate frame={frames[index]!} onClose={() => setDialog(null)} />}
    </nav>
  )
}

/** Which way the frames run on the screen: 1 to the right, -1 to the left. */
const wayOf = (list: HTMLElement) => (getComputedStyle(list).direction === 'rtl' ? -1 : 1)

/** Before which frame something lies that is dropped at a place on the screen. */
function placeAt(list: HTMLElement, x: number): number {
  const stations = [...list.querySelectorAll('[data-frame]')].map((s) => s.getBoundingClientRect())
  const way = wayOf(list)
  const at = stations.findIndex((box) => way * x < way * (box.left + box.width / 2))
  return at < 0 ? stations.length : at
}

type StationProps = {
  frame: Frame
  n: number
  last: boolean
  on: boolean
  picked: boolean
  onPick: (e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void
  onDrop: (x: number) => void
}

function Station({ frame, n, last, on, picked, onPick, onDrop }: StationProps) {
  const { t } = useTranslation()
  const [pull, setPull] = useState<{ from: number; dx: number; far: boolean } | null>(null)
  const title = frame.title || frame.prompt || t('prepare.untitled')
  const Sign = arrangementSign[frame.arrangement]
  const move = (e: PointerEvent) => {
    if (!pull) return
    const dx = e.clientX - pull.from
    setPull({ ...pull, dx, far: pull.far || Math.abs(dx) > TAKES_PX })
  }
  return (
    <div
      role="option"
      aria-selected={on || picked}
      aria-label={t('prepare.station', { n, title, arrangement: t(`sharing.${frame.arrangement}_short`) })}
      tabIndex={on ? 0 : -1}
      data-frame={frame.id}
      className={`relative flex min-w-32 max-w-56 grow basis-0 cursor-pointer touch-pan-x flex-col items-center rounded-lg px-1 pb-1 select-none ${picked ? 'bg-dusk-soft' : 'hover:bg-mist'} ${pull?.far ? 'z-10 opacity-80' : ''}`}
      style={pull?.far ? { translate: `${pull.dx}px 0` } : undefined}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        e.currentTarget.setPointerCapture(e.pointerId)
        if (!on && !e.shiftKey && !e.ctrlKey && !e.metaKey && !picked) onPick(e)
        setPull({ from: e.clientX, dx: 0, far: false })
      }}
      onPointerMove={move}
      onPointerUp={(e) => {
        if (pull?.far) onDrop(e.clientX)
        else onPick(e)
        setPull(null)
      }}
      onPointerCancel={() => setPull(null)}
    >
      {!last && <span aria-hidden="true" className="absolute start-1/2 top-[19px] h-0.5 w-full bg-edge" />}
      <span
        aria-hidden="true"
        className={`relative grid size-9 place-items-center rounded-full border-4 font-bold ${on ? 'border-ridge bg-dusk text-paper' : 'border-line bg-paper'}`}
      >
        {n}
      </span>
      <span className={`mt-1 flex max-w-full items-center gap-1.5 text-sm ${on ? 'font-bold' : 'text-slate'}`}>
        <Sign size={14} className="shrink-0" aria-hidden="true" />
        <span className="truncate">{title}</span>
      </span>
    </div>
  )
}

const SHOWN_MS = 8000

/** Says that frames were deleted, and brings them back. */
function Deleted({ count, onUndo, onDone }: { count: number; onUndo: () => void; onDone: () => void }) {
  const { t } = useTranslation()
  useEffect(() => {
    if (count === 0) return
    const timer = setTimeout(onDone, SHOWN_MS)
    return () => clearTimeout(timer)
  }, [count, onDone])
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 bottom-28 z-30 flex justify-center px-4">
      {count > 0 && (
        <p className="pointer-events-auto flex items-center gap-3 rounded-xl border border-line bg-paper px-4 py-2 font-semibold shadow-lg">
          {t('prepare.dropped', { count })}
          <Button
            onClick={() => {
              onUndo()
              onDone()
            }}
          >
            {t('prepare.bringBack')}
          </Button>
        </p>
      )}
    </div>
  )
}
