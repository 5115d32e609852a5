import { preview, type Hands, type Marks } from '../rules/apply'
import { isRemoved } from '../rules/standing'
import type { Arrangement, Change, Cursor, Element, Op, Part, SheetChanges, SheetView } from './types.gen'

type Held = {
  sheet: string
  frame: string
  owner: string
  /** How far the sheet is here; `more` while its first parts are still coming. */
  at: Cursor
  more: boolean
  saved: Marks
  /** Changes that came before the ones they follow. */
  early: Map<number, Change>
  /** The number of the last change that was heard of. */
  heard: number
}

/** A sheet as a screen shows it: what is saved, with what is on its way on top. */
export type Shown = { sheet: string; frame: string; owner: string; marks: Element[] }

/** How many changes of a sheet that is just being fetched are kept until it is there. */
const MAX_UNCLAIMED = 500

/** The sheets on this screen, and the operations that are not yet saved. */
export class Sheets {
  private held = new Map<string, Held>()
  private shown = new Map<string, Shown>()
  private list: Shown[] = []
  private readonly hands: Hands
  /** Changes of sheets of the frame that is just being fetched. */
  private unclaimed = new Map<string, Change[]>()
  private fetching: string | null = null
  /** Operations not yet saved, in order; `seq` once the server has saved one. */
  private waiting: Array<{ op: Op; seq?: number }> = []
  readonly author: string

  constructor(author: string, hands: Pick<Hands, 'mayChange' | 'piece'>) {
    this.author = author
    this.hands = { author, kept: new Map(), ...hands }
  }

  /** Takes a sheet as the server has it now, or its first part, or what has changed of one that is here. */
  load(view: SheetView) {
    const old = this.held.get(view.sheet)
    if (old && !old.more && seqOf(old.at) > seqOf(view.to)) return // an older picture than ours
    if (old && !view.anew) {
      this.fill(view.sheet, old.at, view)
      return
    }
    const held: Held = {
      sheet: view.sheet,
      frame: view.frame,
      owner: view.owner,
      at: view.to,
      more: view.more ?? false,
      saved: new Map(view.put.map((m) => [m.id, sameAs(m, old?.saved.get(m.id))])),
      early: old?.early ?? new Map<number, Change>(),
      heard: Math.max(old?.heard ?? 0, seqOf(view.to)),
    }
    this.held.set(view.sheet, held)
    for (const change of this.unclaimed.get(view.sheet) ?? []) hear(held, change)
    this.unclaimed.delete(view.sheet)
    this.drain(held)
    this.shown.delete(view.sheet)
  }

  /** Takes what a sheet has missed, as it was asked for from a cursor. */
  fill(sheet: string, from: Cursor, part: Part) {
    const held = this.held.get(sheet)
    if (!held || (held.more && (held.at.seq !== from.seq || held.at.after !== from.after))) return
    if (!held.more && seqOf(part.to) < seqOf(held.at)) return
    if (part.anew) {
      this.load({ ...held, ...part })
      return
    }
    for (const mark of part.put) held.saved.set(mark.id, sameAs(mark, held.saved.get(mark.id)))
    for (const id of part.gone ?? []) this.forget(held, id)
    held.at = part.to
    held.more = part.more ?? false
    this.drain(held)
    this.shown.delete(sheet)
  }

  /** Takes saved changes; returns false when something that comes before is missing. */
  take(news: Pick<SheetChanges, 'sheet' | 'frame' | 'changes'> & { seq?: number }): boolean {
    const held = this.held.get(news.sheet)
    if (!held) {
      if (news.frame !== this.fetching) return true
      const known = this.unclaimed.get(news.sheet) ?? []
      this.unclaimed.set(news.sheet, [...known, ...news.changes].slice(-MAX_UNCLAIMED))
      return true
    }
    for (const change of news.changes) hear(held, change)
    held.heard = Math.max(held.heard, news.seq ?? 0)
    this.drain(held)
    this.shown.delete(news.sheet)
    return !this.lacks(news.sheet)
  }

  /** Whether a sheet here has missed something. */
  lacks(sheet: string): boolean {
    const held = this.held.get(sheet)
    return held !== undefined && (held.more || held.early.size > 0 || held.heard > seqOf(held.at))
  }

  /** The sheets here that have missed something. */
  lacking = () => [...this.held.keys()].filter((sheet) => this.lacks(sheet))

  /** Notes that the sheets of a frame are being fetched. */
  expect(frame: string) {
    this.fetching = frame
    this.unclaimed.clear()
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

  /** How far the sheets are here, as they are told to the server after the connection broke. */
  have = (): Record<string, Cursor> => Object.fromEntries([...this.held.values()].map((h) => [h.sheet, h.at]))

  /** How far a sheet is here. */
  at(sheet: string): Cursor | undefined {
    return this.held.get(sheet)?.at
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
    if (entry && held && (held.more || seqOf(held.at) < seq)) {
      entry.seq = seq
      held.heard = Math.max(held.heard, seq)
    } else this.abandon(op)
  }

  /** Takes an operation off the picture: it was refused, or its change is there. */
  abandon(op: Op) {
    this.waiting = this.waiting.filter((w) => w.op.id !== op.id)
    this.shown.delete(op.sheet)
  }

  /** All sheets as they are shown; the same objects as long as nothing changed. */
  all(): Shown[] {
    const now = [...this.held.values()].map((held) => this.view(held))
    if (now.length !== this.list.length || now.some((s, i) => s !== this.list[i])) this.list = now
    return this.list
  }

  /** The marks of a sheet by id, as shown. */
  marks(sheet: string): Marks {
    const held = this.held.get(sheet)
    return new Map((held ? this.view(held).marks : []).map((m) => [m.id, m]))
  }

  /** The marks that one operation removed, as far as this device knows of them. */
  removedIn(sheet: string, op: string): string[] {
    const here = [...(this.held.get(sheet)?.saved.values() ?? [])]
    return [...new Map([...this.hands.kept.values(), ...here].map((m) => [m.id, m])).values()]
      .filter((m) => isRemoved(m) && m.standing?.in === op)
      .map((m) => m.id)
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

  /** Takes the changes that follow what is here. */
  private drain(held: Held) {
    if (held.more) return
    for (const seq of held.early.keys()) if (seq <= held.at.seq) held.early.delete(seq)
    for (let next = held.early.get(held.at.seq + 1); next; next = held.early.get(held.at.seq + 1)) {
      const whole = (next.put ?? []).map((mark) => this.whole(held, mark))
      // A line without points that are not here: the sheet is asked for from the beginning.
      if (whole.some((mark) => mark === null)) {
        held.at = { seq: 0 }
        held.more = true
        return
      }
      held.early.delete(next.seq)
      for (const mark of whole) held.saved.set(mark!.id, mark!)
      for (const id of next.gone ?? []) this.forget(held, id)
      held.at = { seq: next.seq }
      if (next.op) this.waiting = this.waiting.filter((w) => w.op.id !== next.op)
    }
    this.waiting = this.waiting.filter((w) => w.op.sheet !== held.sheet || w.seq === undefined || w.seq > held.at.seq)
  }

  private forget(held: Held, id: string) {
    const gone = held.saved.get(id)
    if (gone) this.hands.kept.set(id, gone)
    held.saved.delete(id)
  }

  /** A mark from a change, with the points that it had before where they did not change. */
  private whole(held: Held, mark: Element): Element | null {
    if (mark.kind !== 'stroke' || mark.stroke.points.length > 0) return mark
    const before = held.saved.get(mark.id) ?? this.hands.kept.get(mark.id)
    if (before?.kind !== 'stroke') return null
    return { ...mark, stroke: { ...mark.stroke, points: before.stroke.points } }
  }
}

function hear(held: Held, change: Change) {
  if (held.more || change.seq > held.at.seq) held.early.set(change.seq, change)
  held.heard = Math.max(held.heard, change.seq)
}

/** The number up to which all is here. */
const seqOf = (at: Cursor) => (at.after ? at.seq - 1 : at.seq)

/** A mark as the server has it; the object that is here when nothing is different. */
const sameAs = (mark: Element, here: Element | undefined) =>
  here && JSON.stringify(here) === JSON.stringify(mark) ? here : mark

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
