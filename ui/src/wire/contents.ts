import type { Element, Stage } from './types.gen'

/** How many contents a device keeps; a board has at most 60 frames. */
const MOST = 64

/** What was prepared on frames, by the names of the contents: each comes once, and later what has changed. */
export class Contents {
  private readonly kept = new Map<string, Element[]>()

  names = () => [...this.kept.keys()]

  /** The stage with all that was prepared; null where what it is made from is not here. */
  whole<Told extends Stage>(stage: Told): Told | null {
    const prepared = this.kept.get(stage.content) ?? this.made(stage)
    if (!prepared) return null
    this.kept.delete(stage.content)
    this.kept.set(stage.content, prepared)
    const [oldest] = this.kept.keys()
    if (this.kept.size > MOST) this.kept.delete(oldest!)
    return { ...stage, change: undefined, frame: { ...stage.frame, prepared } }
  }

  /** What stays is the very same mark, so that nothing of it is painted anew. */
  private made({ frame, change }: Stage): Element[] | undefined {
    if (!change) return frame.prepared
    const gone = new Set(change.gone)
    const marks = this.kept.get(change.from)?.filter((m) => !gone.has(m.id))
    for (const { at, mark } of change.put ?? []) marks?.splice(at, 0, mark)
    return marks
  }
}
