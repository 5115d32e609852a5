import { preview, type Hands, type Marks } from './apply'
import type { Arrangement, Change, Element, Op, SheetChanges, SheetView } from './types.gen'

type Held = {
  sheet: string
  frame: string
  owner: string
  seq: number
  saved: Marks
  /** Changes that came before the ones they follow. */
  early: Map<number, Change>
}

/** A sheet as a screen shows it: what is saved, with what is on its way on top. */
export type Shown = { sheet: string; frame: string; owner: string; marks: Element[] }

/** The sheets on this screen, and the operations that are not yet saved. */
export class Sheets {
  private held = new Map<string, Held>()
  private shown = new Map<string, Shown>()
  private readonly hands: Hands
  /** Changes of sheets that are just being fetched. */
  private unclaimed = new Map<string, Change[]>()
  /** Operations not yet saved, in order; `seq` once the server has saved one. */
  private waiting: Array<{ op: Op; seq?: number }> = []
  readonly author: string

  constructor(author: string, hands: Pick<Hands, 'mayChange' | 'piece'>) {
    this.author = author
    this.hands = { author, kept: new Map(), ...hands }
  }

  /** Takes a sheet as the server has it now. An older picture than ours is left. */
  load(view: SheetView) {
    const old = this.held.get(view.sheet)
    if (old && old.seq > view.seq) return
    const held: Held = { ...view, saved: new Map(view.marks.map((m) => [m.id, m])), early: old?.early ?? new Map() }
    this.held.set(view.sheet, held)
    this.settle(held)
    for (const change of this.unclaimed.get(view.sheet) ?? []) held.early.set(change.seq, change)
    this.unclaimed.delete(view.sheet)
    this.drain(held)
    this.shown.delete(view.sheet)
  }

  /** Takes saved changes; returns false when some that come before are missing. */
  take(news: Pick<SheetChanges, 'sheet' | 'changes'>): boolean {
    const held = this.held.get(news.sheet)
    if (!held) {
      this.unclaimed.set(news.sheet, [...(this.unclaimed.get(news.sheet) ?? []), ...news.changes].slice(-500))
      return true
    }
    for (const change of news.changes) if (change.seq > held.seq) held.early.set(change.seq, change)
    this.drain(held)
    this.shown.delete(news.sheet)
    return held.early.size === 0
  }

  /** Forgets all sheets but those of a frame. */
  keepFrame(frame: string) {
    for (const [id, held] of this.held) {
      if (held.frame !== frame) {
        this.held.delete(id)
        this.shown.delete(id)
      }
    }
  }

  /** The number of the last change that a sheet has here. */
  seq(sheet: string): number | undefined {
    return this.held.get(sheet)?.seq
  }

  has(sheet: string) {
    return this.held.has(sheet)
  }

  /** Adds an operation that is on its way. */
  begin(op: Op) {
    this.waiting.push({ op })
    this.shown.delete(op.sheet)
  }

  /** Notes that an operation was saved under a number; it is shown until that change arrives. */
  saved(op: Op, seq: number) {
    const entry = this.waiting.find((w) => w.op.id === op.id)
    const held = this.held.get(op.sheet)
    if (entry && held && held.seq < seq) entry.seq = seq
    else this.abandon(op)
  }

  /** Takes an operation off the picture: it was refused, or its change is there. */
  abandon(op: Op) {
    this.waiting = this.waiting.filter((w) => w.op.id !== op.id)
    this.shown.delete(op.sheet)
  }

  /** All sheets as they are shown; the same objects as long as nothing changed. */
  all(): Shown[] {
    return [...this.held.values()].map((held) => this.view(held))
  }

  /** The marks of a sheet by id, as shown. */
  marks(sheet: string): Marks {
    const held = this.held.get(sheet)
    return new Map((held ? this.view(held).marks : []).map((m) => [m.id, m]))
  }

  private view(held: Held): Shown {
    const known = this.shown.get(held.sheet)
    if (known) return known
    const marks: Marks = new Map(held.saved)
    for (const { op } of this.waiting) if (op.sheet === held.sheet) preview(marks, this.hands, op)
    const { sheet, frame, owner } = held
    const shown = { sheet, frame, owner, marks: [...marks.values()].sort((a, b) => a.z - b.z) }
    this.shown.set(sheet, shown)
    return shown
  }

  private drain(held: Held) {
    for (const seq of held.early.keys()) if (seq <= held.seq) held.early.delete(seq)
    for (let next = held.early.get(held.seq + 1); next; next = held.early.get(held.seq + 1)) {
      held.early.delete(next.seq)
      for (const mark of next.put ?? []) held.saved.set(mark.id, mark)
      for (const id of next.gone ?? []) {
        const gone = held.saved.get(id)
        if (gone) this.hands.kept.set(id, gone)
        held.saved.delete(id)
      }
      held.seq = next.seq
      if (next.op) this.waiting = this.waiting.filter((w) => w.op.id !== next.op)
    }
    this.settle(held)
  }

  private settle(held: Held) {
    this.waiting = this.waiting.filter((w) => w.op.sheet !== held.sheet || w.seq === undefined || w.seq > held.seq)
  }
}
/** The owner of a group's sheet, by the group's number. */
export const groupOwner = (group: number) => `group-${group}`

/** Whose sheet somebody works on where a frame is shared like this; null for one without a group. */
export function ownerOf(arrangement: Arrangement, me: string, group: number | undefined): string | null {
  switch (arrangement) {
    case 'class':
      return 'class'
    case 'groups':
      return group ? groupOwner(group) : null
    case 'individual':
      return me
  }
}
