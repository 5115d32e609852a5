import { Copy, Ellipsis, LayoutGrid, Plus, Trash2 } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useRef, useState, type KeyboardEvent, type MouseEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { BOARD_PILE } from '../wire/desk'
import { codeOf } from '../wire/http'
import type { Frame } from '../wire/types.gen'
import { AddFrame } from './AddFrame'
import { Deleted } from './Deleted'
import { Dragging } from './Dragging'
import { Overview } from './Overview'
import { SaveTemplate } from './SaveTemplate'
import { Station } from './Station'
import { useDesk, useDeskState } from './useDesk'

type Props = { frames: Frame[]; at: string; onOpen: (frame: string) => void }

/** The board as a way with stations: add, order, duplicate and delete frames, one or many at once. */
export function Trail({ frames, at, onOpen }: Props) {
  const { t } = useTranslation()
  const desk = useDesk()
  const canUndo = useDeskState((s) => s.canUndo.has(BOARD_PILE))
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [dialog, setDialog] = useState<'add' | 'overview' | 'template' | null>(null)
  const [deleted, setDeleted] = useState<{ frames: string[]; by: string } | null>(null)
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
  /** Moves frames so that they stand before a place. */
  function place(before: number, moving = chosen) {
    const rest = frames.map((f) => f.id)
    const behind = rest.slice(before).filter((id) => !moving.includes(id))
    const ahead = rest.slice(0, before).filter((id) => !moving.includes(id))
    const next = [...ahead, ...moving, ...behind]
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
    const by = desk.change({ kind: 'drop', drop: { frames: chosen } })
    // The focus goes to what takes the place of the deleted frame.
    only(left[Math.min(ahead, left.length - 1)]!.id)
    if (by) setDeleted({ frames: chosen, by })
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

  function pick(e: MouseEvent) {
    const id = (e.target as HTMLElement).closest<HTMLElement>('[data-frame]')?.dataset.frame
    if (!id) return
    if (e.shiftKey) reach(id)
    else if (e.ctrlKey || e.metaKey) setPicked(new Set([...picked, at, id]))
    else only(id)
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
        onClick={pick}
        className="flex min-w-0 grow overflow-x-auto px-3 pt-2 pb-2"
      >
        <Dragging frames={frames} onMove={(frame, before) => place(before, chosen.includes(frame) ? chosen : [frame])}>
          {frames.map((frame, i) => (
            <Station
              key={frame.id}
              frame={frame}
              n={i + 1}
              last={i === frames.length - 1}
              on={frame.id === at}
              picked={picked.size > 1 && picked.has(frame.id)}
            />
          ))}
        </Dragging>
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
      <Deleted
        // What was refused is there again.
        count={deleted?.frames.filter((id) => !frames.some((f) => f.id === id)).length ?? 0}
        onUndo={() => deleted && desk.undoThat(BOARD_PILE, deleted.by)}
        onDone={() => setDeleted(null)}
      />
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
