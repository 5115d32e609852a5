import '../../words/windows'
import { v7 as uuidv7 } from 'uuid'
import { Refused, send } from '../../wire/http'
import type { Uploaded } from '../../wire/types.gen'
import { FRAME, freePlace, inside, type Point } from '../paint/geometry'
import type { Hand } from '../hand/hand'

/** A picture on its way; `waits` while there is no network. */
export type Upload = { id: string; name: string; share: number; waits: boolean; cancel: () => void }

const AGAIN_MS = 3000

type Running = (change: (all: Upload[]) => Upload[]) => void

/**
 * Sends pictures and lays them on the frame when they have come. Without network
 * they wait, in sight, until they can be sent.
 */
export function upload(hand: Hand, files: File[], at: Point | undefined, running: Running) {
  for (const file of files) {
    const id = uuidv7()
    const change = (part: Partial<Upload>) => running((all) => all.map((u) => (u.id === id ? { ...u, ...part } : u)))
    let stop = () => {}
    let stopped = false
    const cancel = () => {
      stopped = true
      stop()
    }
    running((all) => [...all, { id, name: file.name, share: 0, waits: false, cancel }])
    const attempt = async (): Promise<void> => {
      const { done, cancel } = send<Uploaded>(hand.bench.pictures(file.name), file, (share) =>
        change({ share, waits: false }),
      )
      stop = cancel
      try {
        lay(hand, await done, at)
      } catch (error) {
        if (!(error instanceof Refused) || stopped) return
        if (error.code !== 'unavailable') return hand.bench.tell(error.code)
        change({ share: 0, waits: true })
        await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
        if (!stopped) return attempt()
      }
    }
    void attempt().finally(() => running((all) => all.filter((u) => u.id !== id)))
  }
}

/** Puts an uploaded picture on the frame, at most a third of it in size. */
function lay(hand: Hand, { picture, width, height }: Uploaded, at?: Point) {
  const k = Math.min(1, 560 / width, 420 / height)
  const w = Math.max(40, Math.round(width * k))
  const h = Math.max(40, Math.round(height * k))
  const { frame, marks } = hand.ground
  const place = at
    ? inside(at.x - w / 2, at.y - h / 2, w, h)
    : freePlace([...frame.prepared, ...marks], w, h, hand.middle())
  const mark = uuidv7()
  hand.do([
    {
      kind: 'add',
      add: {
        mark,
        ...place,
        w: Math.min(w, FRAME.width),
        h: Math.min(h, FRAME.height),
        kind: 'picture',
        picture: { picture },
      },
    },
  ])
  hand.set({ selected: new Set([mark]), tool: 'select' })
}
