import { Centrifuge } from 'centrifuge'
import { v7 as uuidv7 } from 'uuid'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { inverse, type Deed } from '../rules/apply'
import type { Bench, BenchState } from './bench'
import { inParts } from './batches'
import { Clock } from './clock'
import { Passing } from './passing'
import { codeOf, Refused } from './http'
import { Contents } from './contents'
import { Keeping, type Done } from './keeping'
import { groupOwner, Sheets } from './sheets'
import type * as wire from './types.gen'

export type Staff = Omit<wire.StaffHello, 'board' | 'people' | 'work' | 'next' | 'queue' | 'sheets' | 'said'> & {
  board: wire.Board
}
export type Student = { me: wire.Person; stage: wire.Stage }

/** What a screen of a running lesson shows. */
export type LessonState = BenchState & {
  /** Why the server does not let this device in; set for good. */
  closed: wire.Code | null
  staff: Staff | null
  /** The frame that the teacher looks at by themselves, where it is not the one that the class is on. */
  sees: string | null
  student: Student | null
  /** What a front screen shows. */
  front: (wire.FrontStage & { past?: wire.Past }) | null
  /** The language of a front screen, and whether it is dark. */
  look: { language: wire.Language; dark: boolean } | null
  /** What the class has said beside its work, as far as this person may know it. */
  said: wire.Said
  /** What each author has on each frame (staff only), by author and frame. */
  work: ReadonlyMap<string, wire.Work>
  /** What is known of each student, those first who may need the teacher first (staff only). */
  next: readonly wire.NextRow[]
  /** What waits for a yes (staff only). */
  queue: wire.Queue
  /** What the answers to questions say, by question (staff only). */
  outcomes: ReadonlyMap<string, wire.Outcome>
  /** How the sets of questions stand, by their frames. */
  sets: ReadonlyMap<string, wire.SetOutcome>
  /** The frames that the student has done something on. */
  worked: ReadonlySet<string>
  /** Operations that came too late: the lesson had ended. */
  tooLate: number
  /** Commands that are on their way. */
  giving: number
}

const RETRY_MS = 1000
const HIDDEN_MS = 250

export const workKey = (author: string, frame: string) => `${author} ${frame}`

/**
 * One lesson on one device: the connection, what is on the screen, and what is
 * still to be saved. Everything done here is shown at once, kept on the device,
 * sent in order, and sent again with the same id until the server answers.
 */
export class Lesson extends Keeping<wire.Op, Deed, LessonState, wire.OpResult> implements Bench {
  readonly state: StoreApi<LessonState>
  private readonly link: Centrifuge
  /** What passes on the sheets without being kept. */
  readonly passing = new Passing((pass) => this.link.state === 'connected' && void this.link.send(pass).catch(() => {}))
  readonly clock = new Clock(() => this.call<wire.Time>('time', {}))
  protected sheets = new Sheets('', { mayChange: () => false })
  private readonly contents = new Contents()
  private showing = false
  private catching = new Set<string>()
  /** Who has come or gone, and is not shown yet. */
  private newPeople: wire.Person[] = []
  /** The newest revision of the state that was told. */
  private heard = 0
  private stopped = true
  readonly session: string

  constructor(session: string, as: wire.Role, seat: string, looks = false) {
    super(seat)
    this.session = session
    this.state = createStore<LessonState>(() => ({
      network: 'connecting',
      closed: null,
      staff: null,
      sees: null,
      student: null,
      front: null,
      look: null,
      said: {},
      people: new Map(),
      work: new Map(),
      next: [],
      queue: { first: [], count: 0 },
      outcomes: new Map(),
      sets: new Map(),
      worked: new Set(),
      sheets: [],
      unsaved: 0,
      tooLate: 0,
      giving: 0,
      lasting: true,
      refused: null,
      lost: [],
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
        data: { session, as, ...(looks && { looks }) } satisfies wire.Connect,
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
  async start(): Promise<void> {
    this.stopped = false
    addEventListener('offline', this.offline)
    document.addEventListener('visibilitychange', this.sight)
    await this.open()
    if (!this.stopped) this.link.connect()
  }

  stop() {
    this.stopped = true
    removeEventListener('offline', this.offline)
    document.removeEventListener('visibilitychange', this.sight)
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
      const removedIn = (of: string) => this.sheets.removedIn(op.sheet, of)
      const { mayChange, piece } = this
      const back = inverse(this.sheets.marks(op.sheet), { mayChange, piece, removedIn }, op)
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
    const { staff, sees, student } = this.state.getState()
    const frame = staff ? staff.board.frames.find((f) => f.id === (sees ?? staff.state.frame)) : student?.stage.frame
    return frame?.prepared.find((m) => m.id === id && m.layer)
  }

  /**
   * Says something beside the work: done, or refused and told why; without network
   * that is said at once. Returns whether it was done.
   */
  async say(word: wire.Word): Promise<boolean> {
    if (this.state.getState().network !== 'online') {
      this.tell('offline')
      return false
    }
    try {
      this.heardSaid(await this.call<wire.Said>('say', word))
      return true
    } catch (error) {
      this.tell(codeOf(error))
      return false
    }
  }

  /** Takes what is newer than what is here. */
  private heardSaid(told: wire.Said) {
    const newer = <Part extends { rev: number }>(now: Part | undefined, then: Part | undefined) =>
      now && now.rev >= (then?.rev ?? 0) ? now : then
    this.state.setState(({ said }) => ({
      said: {
        all: newer(told.all, said.all),
        shared: newer(told.shared, said.shared),
        own: newer(told.own, said.own),
      },
    }))
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

  protected send(op: wire.Op) {
    this.sheets.begin(op)
    this.keep(op)
    const { student, worked } = this.state.getState()
    const on = student?.stage.frame.id
    if (on && !worked.has(on)) this.state.setState({ worked: new Set([...worked, on]) })
  }

  /** Tells whether the lesson is in sight, where somebody is a student: a device may sleep, or show something else. */
  private readonly sight = () => {
    if (!this.state.getState().student || this.link.state !== 'connected') return
    // Not told now, it is told with the next change, or by the connection that ends.
    void this.call('sight', { away: document.visibilityState === 'hidden' } satisfies wire.Sight).catch(() => {})
  }

  private readonly offline = () => {
    if (this.stopped) return
    const before = this.state.getState()
    const known = before.staff || before.student || before.front
    this.state.setState({ network: known ? 'offline' : 'connecting' })
  }

  protected async call<Reply>(method: string, data: unknown): Promise<Reply> {
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
      const hello = await this.call<wire.StaffHello | wire.StudentHello | wire.FrontHello>('hello', this.known())
      const rev = 'stage' in hello ? hello.stage.rev : 'state' in hello ? hello.state.rev : this.heard
      if (rev < this.heard) throw new Error('told before what has been heard since')
      if ('stage' in hello) this.helloStudent(hello)
      else if ('front' in hello) this.helloFront(hello)
      else this.helloStaff(hello)
      if (document.visibilityState === 'hidden') this.sight()
      for (const op of await this.leftByOthers()) this.sheets.begin(op)
      this.state.setState({ network: 'online' })
      this.show()
      void this.flush()
    } catch {
      setTimeout(() => this.link.state === 'connected' && void this.connected(), RETRY_MS)
    }
  }

  /** Asks anew where the session stands. */
  protected again = () => this.connected()

  /** What need not be sent again. */
  protected has = () => ({ known: this.contents.names(), have: this.sheets.have() })
  protected known = (): wire.Hello => this.has()

  /** A stage with what was prepared, where that was left out because it is here; null if it is not. */
  protected whole = <Told extends wire.Stage>(told: Told): Told | null => this.contents.whole(told)

  private helloStudent({ me, stage: told, people, sheets, worked, said }: wire.StudentHello) {
    const stage = this.contents.whole(told)
    if (!stage) throw new Error('the server left out what is not here')
    this.takeIn(me.id, stage.frame.id, sheets)
    this.state.setState({ student: { me, stage }, said, people: byId(people), worked: new Set(worked) })
  }

  /** Takes the sheets of a frame, after connecting or on the first time ever. */
  protected takeIn(author: string, frame: string, sheets: wire.SheetView[]) {
    if (this.sheets.author !== author) {
      this.sheets = new Sheets(author, this)
      for (const op of this.pending) this.sheets.begin(op)
    }
    this.sheets.keepFrame(frame)
    for (const view of sheets) this.sheets.load(view)
    for (const sheet of this.sheets.lacking()) void this.catchUp(sheet)
  }

  private hear(news: wire.News) {
    if (news.kind === 'stage') this.heard = Math.max(this.heard, news.stage.rev)
    if (news.kind === 'state') this.heard = Math.max(this.heard, news.state.rev)
    if (news.kind === 'board') this.heard = Math.max(this.heard, news.board.state.rev)
    switch (news.kind) {
      case 'changes':
        this.meet(news.changes)
        this.passing.saved(news.changes.changes)
        if (!this.sheets.take(news.changes)) void this.catchUp(news.changes.sheet)
        if (news.changes.work) this.heardWork(news.changes.work)
        this.showSoon()
        return
      case 'people':
        if (news.people.all) this.knowOnly(news.people.people)
        else this.newPeople.push(...news.people.people)
        this.showSoon()
        return
      case 'stage':
        this.heardStage(news.stage)
        return
      case 'state':
        this.heardState(news.state)
        return
      case 'board':
        this.heardBoard(news.board)
        return
      case 'voices':
        this.heardSaid(news.voices)
        return
      case 'front':
        this.heardFront(news.front)
        return
      case 'fronts':
        this.heardFronts(news.fronts)
        return
      case 'next':
        this.state.setState({ next: news.next.rows })
        return
      case 'queue':
        this.state.setState({ queue: news.queue })
        return
      case 'outcome':
        this.heardOutcomes(news.outcome)
        return
      case 'walk':
        this.heardWalk(news.walk)
        return
      case 'passing':
        this.passing.hear(news.passing, this.sheets.author)
    }
  }

  /** Names have gone off, or on again: these are all whom this person may know, besides themselves. */
  private knowOnly(people: wire.Person[]) {
    const { student } = this.state.getState()
    this.newPeople = []
    this.state.setState({ people: byId(student ? [...people, student.me] : people) })
  }

  // What only a front screen hears; see FrontLesson.
  protected helloFront(_hello: wire.FrontHello) {}
  protected heardFront(_stage: wire.FrontStage) {}

  // What only a teacher's connection hears; see StaffLesson.
  protected heardFronts(_fronts: wire.Fronts) {}
  protected helloStaff(_hello: wire.StaffHello) {}
  protected meet(_changes: wire.SheetChanges) {}
  protected heardState(_state: wire.State) {}
  protected heardBoard(_told: wire.Reworked) {}
  protected heardWork(_work: wire.Work[]) {}
  protected withNewWork(): ReadonlyMap<string, wire.Work> {
    return this.state.getState().work
  }

  private heardStage(told: wire.Stage) {
    const student = this.state.getState().student
    if (!student || told.rev <= student.stage.rev) return
    const before = student.stage
    const stage = this.contents.whole(told)
    if (!stage) {
      // Who came later does not have what it is made from.
      void this.move('')
      return
    }
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

  /** Takes the student to a frame that is open at own pace; without one they stay. */
  async move(frame: string) {
    try {
      const moved = await this.call<wire.Moved>('move', { frame, ...this.has() } satisfies wire.Move)
      const [stage, { sheets }] = [this.contents.whole(moved.stage), moved]
      const student = this.state.getState().student
      if (!student || !stage) return
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

  protected heardOutcomes({ outcomes, sets = [] }: wire.Outcomes) {
    const before = this.state.getState()
    const all = new Map(before.outcomes)
    for (const o of outcomes) all.set(o.poll, o)
    const inRow = new Map(before.sets)
    // Told without being asked, it comes without its rows.
    for (const s of sets) inRow.set(s.frame, { ...s, rows: s.rows ?? before.sets.get(s.frame)?.rows })
    this.state.setState({ outcomes: all, sets: inRow })
  }

  /** What is thought of all of the student's own answers on a frame, as far as they may know; throws a Refused. */
  results(ask: wire.AskResults): Promise<wire.Results> {
    return this.call<wire.Results>('results', ask)
  }

  /** What is thought of the student's own answer, once it is shown; throws a Refused. */
  verdict(ask: wire.AskVerdict): Promise<wire.OwnVerdict> {
    return this.call<wire.OwnVerdict>('verdict', ask)
  }

  /**
   * Takes the student to a stop of the class's walk: with no owner to the first one of theirs. Refused, or without
   * network: null, and the person is told.
   */
  async walkTo(owner: string): Promise<(Student['stage'] & { owner: string }) | null> {
    try {
      const ask = (known: string[]) =>
        this.call<wire.AtStop>('walk', { ...this.has(), known, owner } satisfies wire.WalkTo)
      let at = await ask(this.contents.names())
      let stage = this.contents.whole(at.stage)
      if (!stage) {
        at = await ask([])
        stage = this.contents.whole(at.stage)
      }
      this.sheets.load(at.sheet)
      for (const sheet of this.sheets.lacking()) void this.catchUp(sheet)
      this.show()
      return stage && { ...stage, owner: at.owner }
    } catch (error) {
      // The class may have gone on meanwhile, and the walk be over.
      const walk = this.state.getState().student?.stage.walk
      if (walk && (!owner || walk.stops.includes(owner))) this.tell(codeOf(error))
      return null
    }
  }

  /** Takes what is told of the work along which the class walks; of one's own one is told as ever. */
  private heardWalk(told: wire.SheetChanges) {
    const { student } = this.state.getState()
    if (!student || !this.sheets.at(told.sheet)) return
    const { me, stage } = student
    if (told.owner === me.id || (stage.group && told.owner === groupOwner(stage.group.number))) return
    if (!this.sheets.take(told)) void this.catchUp(told.sheet)
    this.showSoon()
  }

  /** Shows what was heard with the next picture of the screen: however much is heard, it is shown once for each. */
  private showSoon() {
    if (this.showing) return
    this.showing = true
    const now = () => {
      if (!this.showing) return
      this.showing = false
      this.show()
    }
    requestAnimationFrame(now)
    // A window that is not in sight paints no pictures.
    setTimeout(now, HIDDEN_MS)
  }

  protected async openFrame(frame: string) {
    try {
      this.sheets.expect(frame)
      const { sheets } = await this.call<wire.Opened>('open', { frame } satisfies wire.Open)
      this.takeIn(this.sheets.author, frame, sheets)
      this.show()
    } catch {
      setTimeout(() => this.link.state === 'connected' && void this.connected(), RETRY_MS)
    }
  }

  /** Fetches what a sheet has missed, part by part. */
  private async catchUp(sheet: string) {
    if (this.catching.has(sheet)) return
    this.catching.add(sheet)
    try {
      for (let at = this.sheets.at(sheet); at && this.sheets.lacks(sheet); at = this.sheets.at(sheet)) {
        this.sheets.fill(sheet, at, await this.call<wire.Part>('since', { sheet, ...at } satisfies wire.Since))
        this.showSoon()
      }
    } catch (error) {
      // Asked too often: a moment later. Otherwise the next change, or the next connection, shows the hole again.
      if (codeOf(error) === 'too-many') setTimeout(() => void this.catchUp(sheet), RETRY_MS)
    } finally {
      this.catching.delete(sheet)
    }
  }

  protected override reachable = () => this.link.state === 'connected' && this.state.getState().network === 'online'

  protected override async deliver(ops: wire.Op[]) {
    return (await this.call<wire.OpsReply>('ops', { ops } satisfies wire.Ops)).results
  }

  protected override answered(op: wire.Op, result: wire.OpResult) {
    const code = result.problem?.code
    if (code) {
      this.sheets.abandon(op)
      this.undoPile.refused(op.sheet, op.id)
      this.lose(writingIn(op))
      // A student's screen says with the end how much came too late.
      if (code === 'session-ended') this.state.setState(({ tooLate }) => ({ tooLate: tooLate + 1 }))
      if (code !== 'session-ended' || !this.state.getState().student) this.tell(code)
      return
    }
    const seq = result.seq!
    this.sheets.saved(op, seq)
    if (result.undo) this.undoPile.confirmed(op.sheet, op.id, withoutID(result.undo))
    // The change itself comes as news; if that is lost, ask for it.
    setTimeout(() => this.sheets.lacks(op.sheet) && void this.catchUp(op.sheet), RETRY_MS)
  }

  protected override show() {
    const came = this.newPeople.splice(0)
    if (came.length > 0) this.state.setState(({ people }) => ({ people: new Map([...people, ...byId(came)]) }))
    const { student } = this.state.getState()
    const me = came.findLast((p) => p.id === student?.me.id)
    if (student && me) this.state.setState({ student: { ...student, me } }) // they were given another name
    this.state.setState({
      sheets: this.sheets.all(),
      work: this.withNewWork(),
      unsaved: this.pending.length,
      canUndo: this.undoPile.undoable(),
      canRedo: this.undoPile.redoable(),
    })
  }
}

/** What somebody wrote in an operation, if anything. */
function writingIn(step: wire.Step): string | undefined {
  if (step.kind === 'add') {
    const { add } = step
    if (add.kind === 'reply') return add.reply.text
    if (add.kind === 'remark') return add.remark.text
    return add.kind === 'note' ? add.note.text : add.kind === 'text' ? add.text.text : undefined
  }
  if (step.kind === 'set') return step.set.text
  if (step.kind === 'many') return step.many.steps.map(writingIn).filter(Boolean).join('\n')
  return undefined
}

function withoutID({ id: _id, ...deed }: wire.Op): Deed {
  return deed
}

export const byId = <Named extends { id: string }>(all: Named[]) => new Map(all.map((one) => [one.id, one]))
