import type { Deed } from './apply'

type Entry = { of: string; deed: Deed }
type Pile = { undo: Entry[]; redo: Entry[] }

const MAX_STEPS = 200

/**
 * What one person can take back, sheet by sheet. Each entry holds the deed that
 * takes back the operation `of`; the server's own word for it replaces ours.
 * The pile lies in the tab's storage, so that it outlives a reload.
 */
export class UndoPile {
  private piles: Record<string, Pile>
  private readonly key: string

  constructor(seat: string) {
    this.key = `undo ${seat}`
    this.piles = read(this.key)
  }

  did(sheet: string, of: string, deed: Deed) {
    const pile = this.pile(sheet)
    pile.undo = [...pile.undo, { of, deed }].slice(-MAX_STEPS)
    pile.redo = []
    this.write()
  }

  /** Takes the last deed to take back off the pile. */
  undo(sheet: string): Deed | null {
    return this.pile(sheet).undo.pop()?.deed ?? null
  }

  /** Notes what would bring back what was just taken back. */
  undid(sheet: string, of: string, deed: Deed) {
    this.pile(sheet).redo.push({ of, deed })
    this.write()
  }

  redo(sheet: string): Deed | null {
    return this.pile(sheet).redo.pop()?.deed ?? null
  }

  redid(sheet: string, of: string, deed: Deed) {
    this.pile(sheet).undo.push({ of, deed })
    this.write()
  }

  /** Replaces our own idea of how to take an operation back by the server's. */
  confirmed(sheet: string, of: string, deed: Deed) {
    for (const entry of this.entries(sheet)) if (entry.of === of) entry.deed = deed
    this.write()
  }

  /** Forgets an operation that never happened. */
  refused(sheet: string, of: string) {
    const pile = this.pile(sheet)
    pile.undo = pile.undo.filter((e) => e.of !== of)
    pile.redo = pile.redo.filter((e) => e.of !== of)
    this.write()
  }

  undoable = () => new Set(Object.keys(this.piles).filter((sheet) => this.pile(sheet).undo.length > 0))
  redoable = () => new Set(Object.keys(this.piles).filter((sheet) => this.pile(sheet).redo.length > 0))

  private pile(sheet: string): Pile {
    return (this.piles[sheet] ??= { undo: [], redo: [] })
  }

  private entries(sheet: string) {
    const { undo, redo } = this.pile(sheet)
    return [...undo, ...redo]
  }

  private write() {
    try {
      sessionStorage.setItem(this.key, JSON.stringify(this.piles))
    } catch {
      // Without storage the pile lasts as long as the page.
    }
  }
}

function read(key: string): Record<string, Pile> {
  try {
    return JSON.parse(sessionStorage.getItem(key) ?? '{}') as Record<string, Pile>
  } catch {
    return {}
  }
}
