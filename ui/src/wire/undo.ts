/** One thing done: what takes back each of the operations that it took. */
type Entry<Deed> = Array<{ of: string; deed: Deed }>
type Pile<Deed> = { undo: Entry<Deed>[]; redo: Entry<Deed>[] }

const MAX_STEPS = 300
const WRITE_MS = 400

/**
 * What one person can take back, sheet by sheet. The server's own word for how
 * an operation is taken back replaces ours. The pile lies in the tab's storage,
 * so that it outlives a reload.
 */
export class UndoPile<Deed> {
  private piles: Record<string, Pile<Deed>>
  private readonly key: string
  private writing: ReturnType<typeof setTimeout> | undefined

  constructor(seat: string) {
    this.key = `undo3 ${seat}`
    this.piles = read(this.key)
    // A page that goes writes what is there.
    globalThis.addEventListener?.('pagehide', this.writeNow)
  }

  did(sheet: string, entry: Entry<Deed>) {
    const pile = this.pile(sheet)
    pile.undo = [...pile.undo, entry].slice(-MAX_STEPS)
    pile.redo = []
    this.write()
  }

  /** Takes the last thing to take back off the pile: its deeds, the last first. */
  undo(sheet: string): Deed[] | null {
    return deeds(this.pile(sheet).undo.pop())
  }

  /** Takes one thing off the pile, by an operation of it, whatever was done since. */
  undoThat(sheet: string, of: string): Deed[] | null {
    const pile = this.pile(sheet)
    const entry = pile.undo.find((one) => one.some((part) => part.of === of))
    pile.undo = pile.undo.filter((one) => one !== entry)
    return deeds(entry)
  }

  /** Notes what would bring back what was just taken back. */
  undid(sheet: string, entry: Entry<Deed>) {
    this.pile(sheet).redo.push(entry)
    this.write()
  }

  redo(sheet: string): Deed[] | null {
    return deeds(this.pile(sheet).redo.pop())
  }

  redid(sheet: string, entry: Entry<Deed>) {
    this.pile(sheet).undo.push(entry)
    this.write()
  }

  /** Replaces our own idea of how to take an operation back by the server's. */
  confirmed(sheet: string, of: string, deed: Deed) {
    for (const one of this.entries(sheet)) if (one.of === of) one.deed = deed
    this.write()
  }

  /** Forgets an operation that never happened. */
  refused(sheet: string, of: string) {
    const pile = this.pile(sheet)
    const without = (entries: Entry<Deed>[]) =>
      entries.map((e) => e.filter((one) => one.of !== of)).filter((e) => e.length > 0)
    pile.undo = without(pile.undo)
    pile.redo = without(pile.redo)
    this.write()
  }

  undoable = () => new Set(Object.keys(this.piles).filter((sheet) => this.pile(sheet).undo.length > 0))
  redoable = () => new Set(Object.keys(this.piles).filter((sheet) => this.pile(sheet).redo.length > 0))

  private pile(sheet: string): Pile<Deed> {
    return (this.piles[sheet] ??= { undo: [], redo: [] })
  }

  private entries(sheet: string) {
    const { undo, redo } = this.pile(sheet)
    return [...undo, ...redo].flat()
  }

  /** Writes the piles to the tab's storage soon: not whole at every stroke. */
  private write() {
    this.writing ??= setTimeout(this.writeNow, WRITE_MS)
  }

  private readonly writeNow = () => {
    clearTimeout(this.writing)
    this.writing = undefined
    try {
      sessionStorage.setItem(this.key, JSON.stringify(this.piles))
    } catch {
      // Without storage the pile lasts as long as the page.
    }
  }
}

const deeds = <Deed>(entry: Entry<Deed> | undefined) => entry?.map((one) => one.deed).reverse() ?? null

function read<Deed>(key: string): Record<string, Pile<Deed>> {
  try {
    return JSON.parse(sessionStorage.getItem(key) ?? '{}') as Record<string, Pile<Deed>>
  } catch {
    return {}
  }
}
