import { Centrifuge } from 'centrifuge'
import { v7 as uuidv7 } from 'uuid'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { inverse, type Deed } from './apply'
import type { Bench, BenchState } from './bench'
import { inParts, nextBatch } from './batches'
import { Passing } from './passing'
import { Refused } from './http'
import { Keeping, type Done } from './keeping'
import { Sheets } from './sheets'
import type * as wire from './types.gen'

export type Staff = Omit<wire.StaffHello, 'people' | 'work' | 'sheets'>
export type Student = { me: wire.Person; stage: wire.Stage }

/** What a screen of a running lesson shows. */
export type LessonState = BenchState & {
  /** Why the server does not let this device in; set for good. */
  closed: wire.Code | null
  staff: Staff | null
  student: Student | null
  /** What each author has on each frame (staff only), by author and frame. */
  work: ReadonlyMap<string, wire.Work>
  /** The frames that the student has done something on. */
  worked: ReadonlySet<string>
  /** Operations that came too late: the lesson had ended. */
  tooLate: number
}

const RETRY_MS = 1000

export const workKey = (author: string, frame: string) => `${author} ${frame}`

/**
 * One lesson on one device: the connection, what is on the screen, and what is
 * still to be saved. Everything done here is shown at once, kept on the device,
 * sent in order, and sent again with the same id until the server answers.
 */
export class Lesson extends Keeping<wire.Op, Deed, LessonState> implements Bench {
  readonly state: StoreApi<LessonState>
  private readonly link: Centrifuge
  /** What passes on the sheets without being kept. */
  readonly passing = new Passing((pass) => this.link.state === 'connected' && void this.link.send(pass).catch(() => {}))
  protected sheets = new Sheets('', { mayChange: () => false })
  private flushing = false
  private catching = new Set<string>()
  private stopped = true
  readonly session: string

  constructor(session: string, as: wire.Role, seat: string) {
    super(seat)
    this.session = session
    this.state = createStore<LessonState>(() => ({
      network: 'connecting',
      closed: null,
      staff: null,
      student: null,
      people: new Map(),
      work: new Map(),
      worked: new Set(),
      sheets: [],
      unsaved: 0,
      tooLate: 0,
      lasting: true,
      refused: null,
      canUndo: new Set(),
      canRedo: new Set(),
    }))
    const at = `${location.host}/realtime`
    const secure = location.protocol === 'https:' ? 's' : ''
    this.link = new Centrifuge(
      [
        { transport: 'websocket', endpoint: `ws${secure}://${at}` },
        { transport: 'http_stream', endpoint: `http${secure}://${at}/stream` },
      ],
      {
        data: { session, as } satisfies wire.Connect,
        emulationEndpoint: `http${secure}://${at}/back`,
        minReconnectDelay: 200,
        maxReconnectDelay: 3000,
        timeout: 8000,
      },
    )
    this.link.on('connected', () => void this.connected())
    this.link.on('connecting', () => this.offline())
    this.link.on('disconnected', ({ code, reason }) => {
      if (!this.stopped)
        this.state.setState({ network: 'offline', closed: code >= 4500 ? (reason as wire.Code) : null })
    })
    this.link.on('publication', ({ data }) => this.hear(data as wire.News))
  }

  /** Opens the device's outbox and connects. */
  async start() {
    this.stopped = false
    addEventListener('offline', this.offline)
    await this.open()
    if (!this.stopped) this.link.connect()
  }

  stop() {
    this.stopped = true
    removeEventListener('offline', this.offline)
    this.link.disconnect()
  }

  /**
   * Does something on a sheet, in one step or in several that are taken back as
   * one: shown at once, saved as soon as the network allows.
   */
  do(sheet: string, ...steps: wire.Step[]) {
    const done = steps.flatMap((step) => this.carryOut({ sheet, ...step }))
    if (done.length > 0) this.undoPile.did(sheet, done)
    this.show()
  }

  /** Sends a deed, in parts when it is large, and says what takes each part back. */
  protected override carryOut(deed: Deed): Done<Deed> {
    return inParts(deed).flatMap((part) => {
      const op = { ...part, id: uuidv7() } as wire.Op
      const back = inverse(this.sheets.marks(op.sheet), this, op)
      this.send(op)
      return back ? [{ of: op.id, deed: { sheet: op.sheet, ...back } }] : []
    })
  }

  /** Whether this person may change a mark of the frame that is on; the server decides in the end. */
  readonly mayChange = (mark: wire.Element): boolean => {
    const { staff, student } = this.state.getState()
    return staff !== null || mark.author === student?.me.id || student?.stage.frame.permission === 'together'
  }

  /** The pieces that were prepared on the frame that is on. */
  readonly piece = (id: string): wire.Element | undefined => {
    const { staff, student } = this.state.getState()
    const frame = staff ? staff.board.frames.find((f) => f.id === staff.state.frame) : student?.stage.frame
    return frame?.prepared.find((m) => m.id === id && m.layer)
  }

  /** Asks what clean shape a drawn stroke means; null when the server cannot be asked. */
  async tidy(sheet: string, mark: string): Promise<wire.Tidied | null> {
    try {
      return await this.call<wire.Tidied>('tidy', { sheet, mark } satisfies wire.Tidy)
    } catch {
      return null
    }
  }

  pictures() {
    return `/sessions/${this.session}/pictures`
  }

  /** Lets the teacher change the session; throws a Refused. */
  async command(command: wire.Command) {
    const { state } = await this.call<wire.CommandReply>('command', command)
    this.heardState(state)
  }

  protected send(op: wire.Op) {
    this.sheets.begin(op)
    this.keep(op)
    const { student, worked } = this.state.getState()
    const on = student?.stage.frame.id
    if (on && !worked.has(on)) this.state.setState({ worked: new Set([...worked, on]) })
  }

  private readonly offline = () => {
    if (this.stopped) return
    const before = this.state.getState()
    this.state.setState({ network: before.staff || before.student ? 'offline' : 'connecting' })
  }

  private async call<Reply>(method: string, data: unknown): Promise<Reply> {
    let reply: Reply & wire.Failure
    try {
      reply = (await this.link.rpc(method, data)).data
    } catch {
      throw new Refused('unavailable')
    }
    if (reply.problem) throw new Refused(reply.problem.code)
    return reply
  }

  private async connected() {
    try {
      const hello = await this.call<wire.StaffHello | wire.StudentHello>('hello', {})
      if ('stage' in hello) this.helloStudent(hello)
      else this.helloStaff(hello)
      this.state.setState({ network: 'online' })
      this.show()
      void this.flush()
    } catch {
      setTimeout(() => this.link.state === 'connected' && void this.connected(), RETRY_MS)
    }
  }

  private helloStudent({ me, stage, people, sheets }: wire.StudentHello) {
    this.takeIn(me.id, stage.frame.id, sheets)
    this.state.setState({ student: { me, stage }, people: byId(people) })
  }

  private helloStaff({ people, work, sheets, ...staff }: wire.StaffHello) {
    this.takeIn('staff', staff.state.frame, sheets)
    this.state.setState({
      staff,
      people: byId(people),
      work: new Map(work.map((w) => [workKey(w.author, w.frame), w])),
    })
  }

  /** Takes the sheets of a frame, after connecting or on the first time ever. */
  protected takeIn(author: string, frame: string, sheets: wire.SheetView[]) {
    if (this.sheets.author !== author) {
      this.sheets = new Sheets(author, this)
      for (const op of this.pending) this.sheets.begin(op)
    }
    this.sheets.keepFrame(frame)
    for (const view of sheets) this.sheets.load(view)
  }

  private hear(news: wire.News) {
    switch (news.kind) {
      case 'changes':
        this.meet(news.changes)
        this.passing.saved(news.changes.changes)
        if (!this.sheets.take(news.changes)) void this.catchUp(news.changes.sheet)
        if (news.changes.work) this.heardWork(news.changes.work)
        this.show()
        return
      case 'people':
        this.state.setState(({ people }) => ({ people: new Map([...people, ...byId(news.people.people)]) }))
        return
      case 'stage':
        this.heardStage(news.stage)
        return
      case 'state':
        this.heardState(news.state)
        return
      case 'passing':
        this.passing.hear(news.passing, this.sheets.author)
    }
  }

  /** Staff hears of every sheet; one that was made after the frame was opened begins empty here. */
  private meet({ sheet, frame, owner }: wire.SheetChanges) {
    const here = this.state.getState().staff?.state.frame
    if (here === frame && !this.sheets.has(sheet)) this.sheets.load({ sheet, frame, owner, seq: 0, marks: [] })
  }

  private heardStage(stage: wire.Stage) {
    const student = this.state.getState().student
    if (!student || stage.rev <= student.stage.rev) return
    const before = student.stage
    const { frame } = stage
    if (stage.pace === 'own' && before.pace === 'own' && frame.id !== before.frame.id) {
      // Told while the student was on the way to another frame, or in another window.
      void this.move(before.frame.id)
      return
    }
    this.state.setState({ student: { ...student, stage } })
    const elsewhere = frame.id !== before.frame.id || stage.group?.number !== before.group?.number
    if (elsewhere || frame.arrangement !== before.frame.arrangement) void this.openFrame(frame.id)
  }

  /** Takes the student to a frame that is open at own pace. */
  async move(frame: string) {
    try {
      const { stage, sheets } = await this.call<wire.Moved>('move', { frame } satisfies wire.Move)
      const student = this.state.getState().student
      if (!student) return
      if (stage.rev < student.stage.rev) {
        await this.move(frame)
        return
      }
      this.takeIn(student.me.id, stage.frame.id, sheets)
      this.state.setState({ student: { ...student, stage } })
      this.show()
    } catch (error) {
      this.tell((error as Refused).code)
    }
  }

  private heardState(state: wire.State) {
    const staff = this.state.getState().staff
    if (!staff || state.rev <= staff.state.rev) return
    this.state.setState({ staff: { ...staff, state } })
    const shared = (s: wire.State) => `${s.set?.[state.frame]?.arrangement} ${s.groups?.length ?? 0}`
    if (state.frame !== staff.state.frame || shared(state) !== shared(staff.state)) void this.openFrame(state.frame)
  }

  private heardWork(work: wire.Work[]) {
    this.state.setState((before) => {
      const next = new Map(before.work)
      for (const w of work) {
        const key = workKey(w.author, w.frame)
        // A time of 0 says that somebody else's doing changed the amount.
        next.set(key, { ...w, at: w.at || (next.get(key)?.at ?? 0) })
      }
      return { work: next }
    })
  }

  private async openFrame(frame: string) {
    try {
      const { sheets } = await this.call<wire.Opened>('open', { frame } satisfies wire.Open)
      this.sheets.keepFrame(frame)
      for (const view of sheets) this.sheets.load(view)
      this.show()
    } catch {
      setTimeout(() => this.link.state === 'connected' && void this.connected(), RETRY_MS)
    }
  }

  /** Fetches the changes that a sheet has missed. */
  private async catchUp(sheet: string) {
    const seq = this.sheets.seq(sheet)
    if (seq === undefined || this.catching.has(sheet)) return
    this.catching.add(sheet)
    try {
      const { changes } = await this.call<wire.ChangesReply>('since', { sheet, seq } satisfies wire.Since)
      this.sheets.take({ sheet, changes })
      this.show()
    } catch {
      // The next change, or the next connection, shows the hole again.
    } finally {
      this.catching.delete(sheet)
    }
  }

  /** Sends what is waiting, one batch after the other. */
  protected override async flush() {
    if (this.flushing || this.link.state !== 'connected') return
    this.flushing = true
    try {
      while (this.pending.length > 0 && this.state.getState().network === 'online') {
        const batch = nextBatch(this.pending)
        const { results } = await this.call<wire.OpsReply>('ops', { ops: batch } satisfies wire.Ops)
        let later = false
        batch.forEach((op, i) => (later = this.answered(op, results[i]!) || later))
        this.show()
        if (later) await pause(RETRY_MS)
      }
    } catch (error) {
      const { code } = error as Refused
      // A whole message was refused, for its rate or in passing: it is sent again.
      if (code !== 'too-many' && code !== 'unavailable') this.tell(code)
      setTimeout(() => void this.flush(), code === 'too-many' ? RETRY_MS : 2 * RETRY_MS)
    } finally {
      this.flushing = false
    }
  }

  /** Takes the answer to one operation; returns true when it is to be sent again. */
  private answered(op: wire.Op, result: wire.OpResult): boolean {
    const code = result.problem?.code
    if (code === 'too-many' || code === 'unavailable') return true
    this.drop(op)
    if (code) {
      this.sheets.abandon(op)
      this.undoPile.refused(op.sheet, op.id)
      if (code === 'session-ended') this.state.setState(({ tooLate }) => ({ tooLate: tooLate + 1 }))
      this.tell(code)
      return false
    }
    const seq = result.seq!
    this.sheets.saved(op, seq)
    if (result.undo) this.undoPile.confirmed(op.sheet, op.id, withoutID(result.undo))
    // The change itself comes as news; if that is lost, ask for it.
    setTimeout(() => (this.sheets.seq(op.sheet) ?? seq) < seq && void this.catchUp(op.sheet), RETRY_MS)
    return false
  }

  protected override show() {
    this.state.setState({
      sheets: this.sheets.all(),
      unsaved: this.pending.length,
      canUndo: this.undoPile.undoable(),
      canRedo: this.undoPile.redoable(),
    })
  }
}

function withoutID({ id: _id, ...deed }: wire.Op): Deed {
  return deed
}

const byId = (people: wire.Person[]) => new Map(people.map((p) => [p.id, p]))

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
