import { useCallback, useMemo, useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Uploaded } from '../wire/types.gen'
import { Refused, send } from '../wire/http'
import { FRAME, freePlace, inside, type Point } from './geometry'
import type { Hand } from './hand'

type Upload = { id: string; name: string; share: number; cancel: () => void }
export type UploadsHere = {
  running: Upload[]
  asking: boolean
  /** The camera's picture is shown. */
  camera: boolean
  toCamera: (on: boolean) => void
  ask: () => void
  close: () => void
  add: (files: File[], at?: Point) => void
}

/** The pictures on their way to the server. */
export function useUploads(hand: Hand): UploadsHere {
  const [running, setRunning] = useState<Upload[]>([])
  const [asking, setAsking] = useState(false)
  const [camera, toCamera] = useState(false)
  const handRef = useRef(hand)
  const add = useCallback((files: File[], at?: Point) => {
    setAsking(false)
    for (const file of files) {
      const id = uuidv7()
      const change = (part: Partial<Upload>) =>
        setRunning((all) => all.map((u) => (u.id === id ? { ...u, ...part } : u)))
      const { done, cancel } = send<Uploaded>(handRef.current.bench.pictures(file.name), file, (share) =>
        change({ share }),
      )
      setRunning((all) => [...all, { id, name: file.name, share: 0, cancel }])
      done
        .then((picture) => lay(handRef.current, picture, at))
        .catch((error: unknown) => error instanceof Refused && handRef.current.bench.tell(error.code))
        .finally(() => setRunning((all) => all.filter((u) => u.id !== id)))
    }
  }, [])
  return useMemo(
    () => ({ running, asking, camera, toCamera, ask: () => setAsking(true), close: () => setAsking(false), add }),
    [running, asking, camera, add],
  )
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
