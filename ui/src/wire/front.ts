import { byId, Lesson } from './lesson'
import type * as wire from './types.gen'

/** How often it is looked what something looks like that is not shown yet. */
const LOOKS_MS = 3000

/** A lesson as a front screen has it: what it shows, and nothing to do. */
export class FrontLesson extends Lesson {
  private readonly ahead?: wire.Front
  private looking = 0

  /** Looks as a teacher does, without being a screen: at what is shown, or at what would be seen of something. */
  constructor(session: string, looks: { now: true } | { at: wire.Front } | null = null) {
    super(session, 'front', '', looks !== null)
    if (looks && 'at' in looks) this.ahead = looks.at
  }

  override async start() {
    if (this.ahead) this.looking = window.setInterval(() => this.reachable() && void this.again(), LOOKS_MS)
    await super.start()
  }

  override stop() {
    clearInterval(this.looking)
    super.stop()
  }

  /** Nothing is kept on the device. */
  protected override open() {
    return Promise.resolve([])
  }

  protected override known = (): wire.Hello => ({ ...this.has(), ...(this.ahead && { show: this.ahead }) })

  protected override helloFront({ front, people, sheets, past, language, dark }: wire.FrontHello) {
    const stage = this.whole(front)
    if (!stage) throw new Error('the server left out what is not here')
    this.takeIn('', stage.frame.id, sheets)
    this.state.setState({ front: { ...stage, past }, people: byId(people), look: { language, dark: dark ?? false } })
  }

  protected override heardFront(told: wire.FrontStage) {
    const before = this.state.getState().front
    if (!before || this.ahead || told.rev < before.rev) return
    const stage = this.whole(told)
    const same = JSON.stringify([told.show, told.seats]) === JSON.stringify([before.show, before.seats])
    const frame = told.frame.id === before.frame.id && told.frame.arrangement === before.frame.arrangement
    if (!stage || !same || !frame || (told.show.kind === 'poll' && !told.tally)) {
      // Something else is to be seen: the sheets for it are asked for.
      void this.again()
      return
    }
    this.state.setState({ front: { ...stage, past: before.past } })
  }

  /** What is put away while its past is shown is put away there, too. */
  protected override meet({ changes }: wire.SheetChanges) {
    const shows = this.state.getState().front?.show.kind
    if (shows === 'past' && (changes.length === 0 || changes.some((c) => c.gone?.length))) void this.again()
  }
}
