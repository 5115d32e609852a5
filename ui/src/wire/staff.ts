import { v7 as uuidv7 } from 'uuid'
import { call, codeOf } from './http'
import { byId, Lesson, workKey, type Staff } from './lesson'
import type * as wire from './types.gen'

/** To look again within this time is the same look. */
const LOOKED_MS = 10_000

/** A lesson as its teacher has it: with commands, and with all that is heard of everybody. */
export class StaffLesson extends Lesson {
  private newWork: wire.Work[] = []

  constructor(session: string, seat: string) {
    super(session, 'staff', seat)
  }

  /**
   * Gives a command: done, or refused and told why; without network that is said
   * at once, and nothing is done later. Returns whether it was done.
   */
  async give(command: wire.Command): Promise<boolean> {
    if (this.state.getState().network !== 'online') {
      this.tell('offline')
      return false
    }
    this.state.setState(({ giving }) => ({ giving: giving + 1 }))
    try {
      await this.command(command)
      return true
    } catch (error) {
      this.tell(codeOf(error))
      return false
    } finally {
      this.state.setState(({ giving }) => ({ giving: giving - 1 }))
    }
  }

  /**
   * Puts a new frame on the lesson's board, at a place counted from 0, and goes there;
   * or is refused and told why. Returns whether it was done.
   */
  async addFrame(at: number, from: wire.FrameSource): Promise<boolean> {
    if (this.state.getState().network !== 'online') {
      this.tell('offline')
      return false
    }
    try {
      const ask = { id: uuidv7(), since: Number.MAX_SAFE_INTEGER, at, from } satisfies wire.AddFrames
      const { results } = await call<wire.EditsReply>('POST', `/boards/${this.session}/frames`, ask)
      const back = results[0]?.back
      const frame = back?.kind === 'drop' ? back.drop.frames[0] : undefined
      return frame !== undefined && (await this.give({ kind: 'go', go: { frame } }))
    } catch (error) {
      this.tell(codeOf(error))
      return false
    }
  }

  /** Shows the teacher alone another frame than the class is on; with null the class's again. */
  lookAt(frame: string | null) {
    const { staff, sees } = this.state.getState()
    const to = frame === staff?.state.frame ? null : frame
    if (!staff || to === sees) return
    this.state.setState({ sees: to })
    void this.openFrame(to ?? staff.state.frame)
  }

  /** Notes that the teacher has looked at somebody's work: who next remembers it. */
  looked(student: string) {
    const { people, said } = this.state.getState()
    const lately = Date.now() - (said.all?.looked?.[student] ?? 0) < LOOKED_MS
    if (people.has(student) && !lately) void this.say({ kind: 'look', look: { student } })
  }

  /** Asks what the answers to the questions of a frame say, with all answers; throws a Refused. */
  async outcomesOf(frame: string): Promise<wire.Outcome[]> {
    const told = await this.call<wire.Outcomes>('outcome', { frame } satisfies wire.AskOutcome)
    this.heardOutcomes(told)
    return told.outcomes
  }

  /** Lets the teacher change the session; throws a Refused. */
  async command(command: wire.Command) {
    const { state } = await this.call<wire.CommandReply>('command', command)
    this.heardState(state)
  }

  protected override known = (): wire.Hello => {
    const { staff } = this.state.getState()
    return staff ? { board: staff.state.edition ?? 0 } : {}
  }

  protected override helloStaff({ people, work, next, queue, sheets, said, ...hello }: wire.StaffHello) {
    const board = hello.board ?? this.state.getState().staff?.board
    if (!board) throw new Error('the server left out what is not here')
    const staff = { ...hello, board }
    this.takeIn('staff', staff.state.frame, sheets)
    this.state.setState({
      staff,
      said,
      next: next.rows,
      queue,
      people: byId(people),
      work: new Map(work.map((w) => [workKey(w.author, w.frame), w])),
    })
    const { sees } = this.state.getState()
    if (sees) void this.openFrame(sees)
  }

  /** Staff hears of every sheet; one that was made after the frame was opened begins empty here. */
  protected override meet({ sheet, frame, owner }: wire.SheetChanges) {
    const { staff, sees } = this.state.getState()
    const here = sees ?? staff?.state.frame
    if (here === frame && !this.sheets.has(sheet)) this.sheets.load({ sheet, frame, owner, to: { seq: 0 }, put: [] })
  }

  protected override heardState(state: wire.State) {
    const staff = this.state.getState().staff
    if (!staff || state.rev <= staff.state.rev) return
    // The board that it is the state of is told by itself.
    if ((state.edition ?? 0) === (staff.state.edition ?? 0)) this.goesOn({ ...staff, state })
  }

  protected override heardBoard({ state, title, order, frames: told }: wire.Reworked) {
    const staff = this.state.getState().staff
    if (!staff || state.rev <= staff.state.rev) return
    const known = byId([...staff.board.frames, ...told])
    const frames = order.flatMap((id) => known.get(id) ?? [])
    if (frames.length < order.length) void this.again()
    else this.goesOn({ ...staff, state, board: { ...staff.board, title, frames } })
  }

  /** Takes the state and the board that belong together, and what is open then. */
  private goesOn(next: Staff) {
    const { staff: before, sees: saw } = this.state.getState()
    // The class has come to where the teacher looks, or that frame is gone.
    const stays = saw !== next.state.frame && next.board.frames.some((f) => f.id === saw)
    const sees = stays ? saw : null
    this.state.setState({ staff: next, sees })
    const shared = (s: Staff, frame: string) =>
      `${frame} ${s.board.frames.find((f) => f.id === frame)?.arrangement} ${s.state.groups?.length ?? 0}`
    const [was, is] = [saw ?? before?.state.frame ?? '', sees ?? next.state.frame]
    if (before && shared(next, is) !== shared(before, was)) void this.openFrame(is)
  }

  protected override heardFronts({ count }: wire.Fronts) {
    const staff = this.state.getState().staff
    if (staff) this.state.setState({ staff: { ...staff, fronts: count } })
  }

  /** Notes what has been worked; it is shown with the next picture. */
  protected override heardWork(work: wire.Work[]) {
    this.newWork.push(...work)
  }

  protected override withNewWork(): ReadonlyMap<string, wire.Work> {
    const before = this.state.getState().work
    if (this.newWork.length === 0) return before
    const next = new Map(before)
    for (const w of this.newWork) {
      const key = workKey(w.author, w.frame)
      // A time of 0 says that somebody else's doing changed the amount.
      next.set(key, { ...w, at: w.at || (next.get(key)?.at ?? 0) })
    }
    this.newWork = []
    return next
  }
}
