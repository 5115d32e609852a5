import { v7 as uuidv7 } from 'uuid'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { inverse } from '../rules/apply'
import { inParts } from './batches'
import type { Bench, BenchState } from './bench'
import { call, codeOf } from './http'
import { Keeping, type Done } from './keeping'
import { Passing } from './passing'
import { Sheets } from './sheets'
import type * as wire from './types.gen'

type Deed = { pile: string; back?: boolean } & wire.BoardStep

/** What the place where a board is prepared shows. */
export type DeskState = BenchState & {
  outline: wire.Outline | null
  /** It is the board of a lesson, with the lesson's id. */
  lesson: boolean
  /** The frames in order, with their settings; what is on them are the sheets. */
  frames: wire.Frame[]
  /** Why the board cannot be opened. */
  closed: wire.Code | null
}

/** The pile of what is done to the board as a whole; each frame has a pile of its own. */
export const BOARD_PILE = 'board'

/** How often it is asked what another window has done. */
const ASK_MS = 4000

/**
 * A board on the teacher's desk. Everything done is shown at once, kept on the
 * device, sent in order, and sent again with the same id until the server
 * answers; what another window does comes along.
 */
export class Desk extends Keeping<wire.BoardEdit, Deed, DeskState, wire.EditResult> implements Bench {
  readonly state: StoreApi<DeskState>
  readonly passing = new Passing(() => {})
  readonly board: string
  private rev = 0
  private outline: wire.Outline | null = null
  private saved = new Map<string, wire.Frame>()
  private seqs = new Map<string, number>()
  private sheets = new Sheets('staff', { mayChange: () => true })
  private asking: ReturnType<typeof setInterval> | undefined

  constructor(board: string) {
    super(`board ${board}`)
    this.board = board
    this.state = createStore<DeskState>(() => ({
      network: 'connecting',
      people: new Map(),
      sheets: [],
      unsaved: 0,
      lasting: true,
      refused: null,
      lost: [],
      canUndo: new Set(),
      canRedo: new Set(),
      outline: null,
      lesson: false,
      frames: [],
      closed: null,
    }))
  }

  /** Opens the board; call stop when the screen goes. */
  async start() {
    addEventListener('online', this.ask)
    document.addEventListener('visibilitychange', this.ask)
    clearInterval(this.asking)
    this.asking = setInterval(this.ask, ASK_MS)
    for (const edit of await this.open()) this.begin(edit)
    await this.read()
  }

  stop() {
    clearInterval(this.asking)
    removeEventListener('online', this.ask)
    document.removeEventListener('visibilitychange', this.ask)
  }

  private async read() {
    try {
      const board = await call<wire.BoardReply>('GET', `/boards/${this.board}`)
      if (board.rev < this.rev) return
      this.rev = board.rev
      this.outline = board.outline
      for (const frame of board.frames) this.takeFrame(frame)
      this.state.setState({ network: 'online', closed: null, lesson: board.lesson ?? false })
      this.show()
      void this.flush()
    } catch (error) {
      const code = codeOf(error)
      if (code !== 'unavailable') this.state.setState({ closed: code })
      else this.state.setState({ network: this.outline ? 'offline' : 'connecting' })
    }
  }

  private readonly ask = () => {
    if (document.visibilityState === 'hidden' || this.isSending()) return
    if (!this.outline) void this.read()
    else if (this.pending.length > 0) void this.flush()
    // That there is no network shows; it is asked again soon.
    else void this.exchange(() => call('GET', `/boards/${this.board}/edits?since=${this.rev}`)).catch(() => undefined)
  }

  // What is done

  do(frame: string, ...steps: wire.Step[]) {
    const done = steps.flatMap((step) =>
      inParts({ sheet: frame, ...step }).flatMap(({ sheet: _s, back: _b, ...part }) =>
        this.carryOut({ pile: frame, kind: 'marks', marks: { frame, step: part as wire.Step } }),
      ),
    )
    if (done.length > 0) this.undoPile.did(frame, done)
    this.show()
  }

  /** Changes settings of a frame. What is typed in one go is taken back in one go. */
  set(frame: string, to: Omit<wire.SetFrame, 'frame'>) {
    const done = this.carryOut({ pile: frame, kind: 'frame', frame: { frame, ...to } })
    this.undoPile.did(frame, done)
    this.show()
  }

  /**
   * Changes the board itself: its title, objectives, or which frames it has in
   * which order. Returns the id by which it can be taken back.
   */
  change(step: Exclude<wire.BoardStep, { kind: 'marks' } | { kind: 'frame' }>): string | undefined {
    const done = this.carryOut({ pile: BOARD_PILE, ...step })
    this.undoPile.did(BOARD_PILE, done)
    this.show()
    return done[0]?.of
  }

  /** Adds frames at a place counted from 0; gives the new frames' ids. Throws a Refused. */
  async add(at: number, from: wire.FrameSource): Promise<string[]> {
    await this.settled()
    const id = uuidv7()
    const reply = await call<wire.EditsReply>('POST', `/boards/${this.board}/frames`, {
      id,
      since: this.rev,
      at,
      from,
    } satisfies wire.AddFrames)
    const back = reply.results[0]?.back
    if (back) this.undoPile.did(BOARD_PILE, [{ of: id, deed: { pile: BOARD_PILE, ...back } }])
    this.take(reply.changes)
    this.show()
    return reply.changes.find((c) => c.op === id)?.whole?.map((f) => f.id) ?? []
  }

  protected override carryOut(deed: Deed): Done<Deed> {
    const { pile, ...rest } = deed
    const edit = { ...rest, id: uuidv7() } as wire.BoardEdit
    const back = this.inverseOf(edit)
    this.begin(edit)
    this.keep(edit)
    return back ? [{ of: edit.id, deed: { pile, ...back } }] : []
  }

  private begin(edit: wire.BoardEdit) {
    if (edit.kind === 'marks')
      this.sheets.begin({ id: edit.id, sheet: edit.marks.frame, ...edit.marks.step } as wire.Op)
  }

  /** What would take an edit back, as far as the device can tell; the server's word replaces it. */
  private inverseOf(edit: wire.BoardEdit): wire.BoardStep | null {
    switch (edit.kind) {
      case 'marks': {
        const { frame, step } = edit.marks
        const op = { id: edit.id, sheet: frame, ...step } as wire.Op
        const removedIn = (of: string) => this.sheets.removedIn(frame, of)
        const back = inverse(this.sheets.marks(frame), { mayChange: () => true, removedIn }, op)
        return back && { kind: 'marks', marks: { frame, step: back } }
      }
      case 'frame': {
        const { frame, ...to } = edit.frame
        const now = this.state.getState().frames.find((f) => f.id === frame)
        if (!now) return null
        const named = Object.keys(to) as Array<keyof typeof to>
        const unsaid = {
          notes: '',
          seconds: 0,
          replies: false,
          objectives: [] as string[],
          criteria: [] as wire.Criterion[],
        }
        const was = { ...unsaid, ...now, set: { as: now.set } }
        const before = Object.fromEntries(named.map((name) => [name, was[name]]))
        return { kind: 'frame', frame: { frame, ...before } }
      }
      case 'drop':
        return { kind: 'bring', bring: edit.drop }
      case 'bring':
        return { kind: 'drop', drop: edit.bring }
      case 'order':
        return { kind: 'order', order: { frames: this.state.getState().outline?.frames ?? [] } }
      case 'board': {
        const { title, objectives, criteria = [] } = this.state.getState().outline!
        return { kind: 'board', board: { title, objectives, criteria } }
      }
    }
  }

  // Saving

  protected override reachable = () => this.outline !== null

  protected override async deliver(edits: wire.BoardEdit[]) {
    const body = { since: this.rev, edits } satisfies wire.Edits
    return (await this.exchange(() => call<wire.EditsReply>('POST', `/boards/${this.board}/edits`, body))).results
  }

  /** Asks or sends something, and takes what has changed meanwhile. */
  private async exchange(ask: () => Promise<wire.EditsReply>): Promise<wire.EditsReply> {
    try {
      const reply = await ask()
      this.take(reply.changes)
      this.state.setState({ network: 'online' })
      if (reply.changes.length > 0) this.show()
      return reply
    } catch (error) {
      const code = codeOf(error)
      if (code === 'sign-in-needed' || code === 'not-found') this.state.setState({ closed: code })
      else this.state.setState({ network: code === 'unavailable' ? 'offline' : 'online' })
      throw error
    }
  }

  protected override answered(edit: wire.BoardEdit, result: wire.EditResult) {
    const pile = edit.kind === 'marks' ? edit.marks.frame : edit.kind === 'frame' ? edit.frame.frame : BOARD_PILE
    if (edit.kind === 'marks') this.sheets.abandon({ id: edit.id, sheet: edit.marks.frame } as wire.Op)
    if (result.problem) {
      this.undoPile.refused(pile, edit.id)
      this.tell(result.problem.code)
    } else if (result.back) this.undoPile.confirmed(pile, edit.id, { pile, ...result.back })
  }

  /** Takes changes, which come in order and without holes. */
  private take(changes: wire.Changed[]) {
    for (const change of changes) {
      if (change.rev <= this.rev) continue
      this.rev = change.rev
      for (const frame of change.whole ?? []) this.takeFrame(frame)
      if (change.setting) this.saved.set(change.setting.id, change.setting)
      if (change.marks) {
        const { frame, put } = change.marks
        const seq = (this.seqs.get(frame) ?? 0) + 1
        this.seqs.set(frame, seq)
        this.sheets.take({ sheet: frame, frame, changes: [{ seq, op: change.op, put }] })
      }
      if (change.outline) this.outline = change.outline
    }
  }

  private takeFrame(frame: wire.Frame) {
    const seq = (this.seqs.get(frame.id) ?? 0) + 1
    this.seqs.set(frame.id, seq)
    this.saved.set(frame.id, { ...frame, prepared: [] })
    this.sheets.load({ sheet: frame.id, frame: frame.id, owner: 'staff', to: { seq }, put: frame.prepared })
  }

  async tidy(frame: string, mark: string): Promise<wire.Tidied | null> {
    try {
      return await call<wire.Tidied>('POST', `/boards/${this.board}/tidy`, { sheet: frame, mark } satisfies wire.Tidy)
    } catch {
      return null
    }
  }

  /** The library finds a picture again by its file's name. */
  pictures(file: string) {
    return `/pictures?name=${encodeURIComponent(file)}`
  }

  /** Shows what is saved with what is on its way on top. */
  protected override show() {
    if (!this.outline) return
    let outline = this.outline
    const frames = new Map(this.saved)
    for (const edit of this.pending) {
      switch (edit.kind) {
        case 'board':
          outline = { ...outline, ...edit.board }
          break
        case 'order':
          outline = { ...outline, frames: edit.order.frames.filter((id) => outline.frames.includes(id)) }
          break
        case 'drop':
          outline = { ...outline, frames: outline.frames.filter((id) => !edit.drop.frames.includes(id)) }
          break
        case 'frame': {
          const { frame, set, ...to } = edit.frame
          const old = frames.get(frame)
          if (old) frames.set(frame, { ...old, ...to, set: set ? set.as : old.set })
        }
      }
    }
    const before = new Map(this.state.getState().frames.map((f) => [f.id, f]))
    const shown = outline.frames.flatMap((id) => {
      const frame = frames.get(id)
      const old = before.get(id)
      // The same frame stays the same object, so that nothing is painted anew.
      return frame ? [old && JSON.stringify(old) === JSON.stringify(frame) ? old : frame] : []
    })
    this.state.setState({
      outline,
      frames: shown,
      sheets: this.sheets.all(),
      unsaved: this.pending.length,
      canUndo: this.undoPile.undoable(),
      canRedo: this.undoPile.redoable(),
    })
  }
}
