import type * as wire from './types.gen'

/** A stroke that somebody is drawing, by the points that have come so far. */
export type Growing = { sheet: string; by: string; draw: wire.Draw; seen: number }
/** Where somebody points. */
export type Pointing = { sheet: string; by: string; x: number; y: number; seen: number }

/** A stroke whose drawer has fallen silent is forgotten after this long. */
const FORGET_MS = 6000
/** The pointer fades after this long. */
export const POINTER_MS = 1800
/** Somebody who writes says so at least this often. */
const EDIT_MS = 4000
const WATCH_MS = 400

/**
 * What passes without being kept: strokes while they are drawn, pointers, and
 * who is writing where. Whoever paints it listens; nothing else is told.
 */
export class Passing {
  readonly strokes = new Map<string, Growing>()
  readonly pointers = new Map<string, Pointing>()
  /** Who writes in which mark: by mark, the author. */
  private editing = new Map<string, { by: string; seen: number }>()
  private writers: ReadonlyMap<string, string> = new Map()
  /** Strokes that have arrived for good: what is still told of them comes too late. */
  private arrived = new Set<string>()
  private watching: ReturnType<typeof setTimeout> | undefined
  private listeners = new Set<() => void>()
  private readonly send: (pass: wire.Pass) => void

  constructor(send: (pass: wire.Pass) => void) {
    this.send = send
  }

  /** Calls back when something has changed; returns how to stop that. */
  readonly listen = (tell: () => void) => {
    this.listeners.add(tell)
    return () => void this.listeners.delete(tell)
  }

  /** Who writes in which mark; the same map until that changes. */
  readonly whoWrites = () => this.writers

  draw = (sheet: string, draw: wire.Draw) => this.send({ sheet, kind: 'draw', draw })
  point = (sheet: string, x: number, y: number) => this.send({ sheet, kind: 'point', point: { x, y } })
  edit = (sheet: string, mark: string) => this.send({ sheet, kind: 'edit', edit: { mark } })

  hear({ sheet, passes }: wire.Passing, me: string) {
    const now = performance.now()
    for (const pass of passes) {
      const by = pass.by ?? ''
      if (by === me || !sheet) continue
      if (pass.kind === 'draw') {
        if (this.arrived.has(pass.draw.stroke)) continue
        const known = this.strokes.get(pass.draw.stroke)
        if (known) known.draw.points.push(...pass.draw.points)
        else this.strokes.set(pass.draw.stroke, { sheet, by, draw: pass.draw, seen: now })
        this.strokes.get(pass.draw.stroke)!.seen = now
      } else if (pass.kind === 'point') {
        this.pointers.set(by, { sheet, by, ...pass.point, seen: now })
      } else {
        for (const [mark, who] of this.editing) if (who.by === by) this.editing.delete(mark)
        if (pass.edit.mark) this.editing.set(pass.edit.mark, { by, seen: now })
        this.noteWriters()
      }
    }
    this.watch()
    this.tell()
  }

  /** Forgets the strokes that have arrived for good. */
  saved(changes: wire.Change[]) {
    let gone = false
    for (const { put } of changes) {
      for (const mark of put ?? []) {
        if (mark.kind !== 'stroke') continue
        gone = this.strokes.delete(mark.id) || gone
        this.arrived.add(mark.id)
      }
    }
    for (const id of this.arrived) if (this.arrived.size > 500) this.arrived.delete(id)
    if (gone) this.tell()
  }

  /** Looks from time to time, as long as there is something to forget. */
  private watch() {
    this.watching ||= setTimeout(() => {
      this.watching = undefined
      this.forget()
      if (this.strokes.size + this.pointers.size + this.editing.size > 0) this.watch()
    }, WATCH_MS)
  }

  private forget() {
    const now = performance.now()
    for (const [id, stroke] of this.strokes) if (now - stroke.seen > FORGET_MS) this.strokes.delete(id)
    for (const [by, pointer] of this.pointers) if (now - pointer.seen > POINTER_MS) this.pointers.delete(by)
    for (const [mark, who] of this.editing) if (now - who.seen > EDIT_MS * 1.4) this.editing.delete(mark)
    this.noteWriters()
    this.tell()
  }

  private noteWriters() {
    const now = new Map([...this.editing].map(([mark, { by }]) => [mark, by]))
    if (now.size === this.writers.size && [...now].every(([mark, by]) => this.writers.get(mark) === by)) return
    this.writers = now
  }

  private tell() {
    for (const tell of this.listeners) tell()
  }
}
