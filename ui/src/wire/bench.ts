import type { StoreApi } from 'zustand/vanilla'
import type { Passing } from './passing'
import type { Shown } from './sheets'
import type { Code, Person, Step, Tidied } from './types.gen'

/** What every place of work knows of itself. */
export type BenchState = {
  network: 'connecting' | 'online' | 'offline'
  people: ReadonlyMap<string, Person>
  sheets: Shown[]
  unsaved: number
  /** False when the browser keeps nothing. */
  lasting: boolean
  /** The last refusal, counted so that the same one can be told twice. */
  refused: { code: Code | 'offline'; count: number } | null
  /** Writing that was not taken and is nowhere else: it can be copied out. */
  lost: readonly string[]
  canUndo: ReadonlySet<string>
  canRedo: ReadonlySet<string>
}

/**
 * What a frame is worked on with: a running lesson, a board that is being
 * prepared, or a try of one. The tools on a frame know nothing else.
 */
export interface Bench {
  readonly state: StoreApi<BenchState>
  readonly passing: Passing
  /** Where a picture from a file of a name is sent to. */
  pictures(file: string): string
  /** Does something on a sheet, in steps that are taken back as one. */
  do(sheet: string, ...steps: Step[]): void
  undo(sheet: string): void
  redo(sheet: string): void
  /** Waits until all is saved, or for a while where it cannot be. */
  settled(): Promise<void>
  /** Asks what clean shape a drawn stroke means; null where nobody can be asked. */
  tidy(sheet: string, mark: string): Promise<Tidied | null>
  /** Tells the person why something was not done. */
  tell(code: Code | 'offline'): void
  /** Lets go of the writing that was not taken. */
  letGo(): void
}
