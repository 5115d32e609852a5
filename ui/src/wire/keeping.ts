import type { StoreApi } from 'zustand/vanilla'
import { nextBatch } from './batches'
import type { BenchState } from './bench'
import { codeOf } from './http'
import { openOutbox, type Outbox } from './outbox'
import type { Code } from './types.gen'
import { UndoPile } from './undo'

/** What was done, by the id of what was sent for it, and the deed that takes it back. */
export type Done<Deed> = Array<{ of: string; deed: Deed }>

/** What the server says of one that was sent: nothing against it, or why it was refused. */
type Answer = { problem?: { code: Code } }

const PATIENCE_MS = 4000
const RETRY_MS = 1000

/** Refusals that say nothing of what was sent, but that it came at a bad moment: it is sent again. */
const atABadMoment = new Set<Code | undefined>(['too-many', 'unavailable'])
/** Refusals of whole messages that say nothing of what was in them. */
const ofTheSender = new Set<Code>(['sign-in-needed', 'not-found'])

/**
 * What every place of work does alike: it keeps what is not yet saved on the
 * device and sends it in order, again and again with the same id until the
 * server has answered; and it takes back what was done, pile by pile (a frame's
 * sheet, or the board as a whole).
 */
export abstract class Keeping<
  Out extends { id: string },
  Deed extends object,
  State extends BenchState,
  Result extends Answer = Answer,
> {
  abstract readonly state: StoreApi<State>
  protected pending: Out[] = []
  protected readonly undoPile: UndoPile<Deed>
  private outbox: Outbox<Out> | null = null
  private sending = false
  /** After a whole message was refused: what is in it goes one by one. */
  private alone = false
  private readonly seat: string

  /** The seat says whose work on what this is; nothing of one is sent for another. */
  constructor(seat: string) {
    this.seat = seat
    this.undoPile = new UndoPile(seat)
  }

  /** Does a deed at once and sends it; says what takes it back. */
  protected abstract carryOut(deed: Deed): Done<Deed>
  /** Brings the screen up to what is done. */
  protected abstract show(): void
  /** Whether there is somebody to send to. */
  protected abstract reachable(): boolean
  /** Sends some in one message and gives what became of each; throws a Refused where the message was refused. */
  protected abstract deliver(batch: Out[]): Promise<Result[]>
  /** Takes what became of one, which will not be sent again. */
  protected abstract answered(out: Out, result: Result): void

  /** Opens the device's store and gives what was left there, once. */
  protected async open(): Promise<Out[]> {
    if (this.outbox) return []
    const outbox = await openOutbox<Out>()
    this.pending = await outbox.load(this.seat).catch(() => [])
    this.outbox = outbox
    this.state.setState({ lasting: outbox.lasting, unsaved: this.pending.length } as Partial<State>)
    return this.pending
  }

  /** What another window of the same seat has left unsent, since it was looked for last. */
  protected async leftByOthers(): Promise<Out[]> {
    const all = (await this.outbox?.load(this.seat).catch(() => [])) ?? []
    const left = all.filter((out) => !this.pending.some((p) => p.id === out.id))
    if (left.length > 0) this.pending = [...this.pending, ...left].sort((a, b) => (a.id < b.id ? -1 : 1))
    return left
  }

  /** This device cannot keep things: the person is told. */
  private readonly cannotKeep = () => this.state.setState({ lasting: false } as Partial<State>)

  protected keep(out: Out) {
    this.pending.push(out)
    void this.outbox?.put(this.seat, out).catch(this.cannotKeep)
    void this.flush()
  }

  /** Sends what is pending, one message after the other, unless that is under way. */
  protected async flush() {
    if (this.sending) return
    this.sending = true
    let wait = 0
    try {
      while (this.pending.length > 0 && wait === 0 && this.reachable()) {
        const batch = this.alone ? this.pending.slice(0, 1) : nextBatch(this.pending)
        const results = await this.deliver(batch)
        this.alone = false
        batch.forEach((out, i) => {
          if (atABadMoment.has(results[i]?.problem?.code)) wait = RETRY_MS
          else this.settle(out, results[i]!)
        })
        this.show()
      }
    } catch (error) {
      const code = codeOf(error)
      wait = code === 'unavailable' ? 2 * RETRY_MS : RETRY_MS
      // Refused for what is in it, each is sent alone, and the one that cannot be taken so is given up.
      if (!atABadMoment.has(code) && !ofTheSender.has(code)) {
        if (this.alone && this.pending[0]) this.settle(this.pending[0], { problem: { code } } as Result)
        this.alone = true
        this.show()
      }
    } finally {
      this.sending = false
    }
    if (wait > 0 && this.pending.length > 0) setTimeout(() => void this.flush(), wait)
  }

  /** Whether something is on its way. */
  protected isSending = () => this.sending

  private settle(out: Out, result: Result) {
    this.drop(out)
    this.answered(out, result)
  }

  /** The server has answered: this is not sent again. */
  private drop(out: Out) {
    this.pending = this.pending.filter((p) => p.id !== out.id)
    void this.outbox?.drop(out.id).catch(this.cannotKeep)
  }

  undo(pile: string) {
    const back = this.undoPile.undo(pile)
    if (back) this.undoPile.undid(pile, this.takeBack(back))
    this.show()
  }

  /** Takes back one thing that was done, by its operation, whatever was done since. */
  undoThat(pile: string, of: string) {
    const back = this.undoPile.undoThat(pile, of)
    if (back) this.undoPile.undid(pile, this.takeBack(back))
    this.show()
  }

  redo(pile: string) {
    const forth = this.undoPile.redo(pile)
    if (forth) this.undoPile.redid(pile, this.takeBack(forth))
    this.show()
  }

  private takeBack(deeds: Deed[]) {
    return deeds.flatMap((deed) => this.carryOut({ ...deed, back: true }))
  }

  /** Waits until all is saved, or for a while where it cannot be. */
  settled(): Promise<void> {
    return new Promise((resolve) => {
      const done = () => {
        stop()
        clearTimeout(patience)
        resolve()
      }
      const stop = this.state.subscribe((s) => s.unsaved === 0 && done())
      const patience = setTimeout(done, PATIENCE_MS)
      if (this.state.getState().unsaved === 0) done()
    })
  }

  /** Keeps writing that was not taken in sight, so that it can be copied out. */
  protected lose(text: string | undefined) {
    if (!text?.trim()) return
    this.state.setState(({ lost }) => ({ lost: lost.includes(text) ? lost : [...lost, text] }) as Partial<State>)
  }

  letGo() {
    this.state.setState({ lost: [] as readonly string[] } as Partial<State>)
  }

  /** Tells the person why something was not done. */
  tell(code: Code | 'offline') {
    this.state.setState(({ refused }) => ({ refused: { code, count: (refused?.count ?? 0) + 1 } }) as Partial<State>)
  }
}
