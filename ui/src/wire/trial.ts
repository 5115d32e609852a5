import { call, codeOf } from './http'
import { Lesson } from './lesson'
import type { Op, Stage, Tidied } from './types.gen'

const ME = { id: 'trial', name: '' }

/**
 * A frame as a student will find it, on this device alone: what is done there
 * is shown, never sent, and gone with the page.
 */
export class Trial extends Lesson {
  private readonly path: string
  private readonly name: string

  constructor(board: string, frame: string, lifted: boolean, name: string) {
    super('', 'student', `trial ${board} ${Date.now()}`)
    this.path = `/boards/${board}/try?frame=${frame}&lifted=${lifted}`
    this.name = name
  }

  override async start() {
    try {
      const stage = await call<Stage>('GET', this.path)
      const shared = stage.group ? `group-${stage.group.number}` : 'class'
      const sheet = (owner: string) => ({ sheet: owner, frame: stage.frame.id, owner, to: { seq: 0 }, put: [] })
      this.takeIn(ME.id, stage.frame.id, [sheet(shared), sheet(ME.id)])
      this.state.setState({ student: { me: { ...ME, name: this.name }, stage }, network: 'online' })
      this.show()
    } catch (error) {
      this.state.setState({ closed: codeOf(error) })
    }
  }

  override stop() {}

  override async tidy(): Promise<Tidied | null> {
    return null
  }

  protected override send(op: Op) {
    this.sheets.begin(op)
  }
}
