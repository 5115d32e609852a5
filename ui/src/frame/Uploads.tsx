import { X } from 'lucide-react'
import { lazy, Suspense, useCallback, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import type { Uploaded } from '../wire/types.gen'
import { Refused, send } from '../wire/http'
import { FRAME, freePlace, inside, type Point } from './geometry'
import type { Hand } from './hand'

const CameraView = lazy(() => import('./CameraView'))
const PictureDialog = lazy(() => import('./PictureDialog'))

type Upload = { id: string; name: string; share: number; cancel: () => void }
export type UploadsHere = {
  running: Upload[]
  asking: boolean
  ask: () => void
  close: () => void
  add: (files: File[], at?: Point) => void
}

/** The pictures on their way to the server. */
export function useUploads(hand: Hand): UploadsHere {
  const [running, setRunning] = useState<Upload[]>([])
  const [asking, setAsking] = useState(false)
  const handRef = useRef(hand)
  const add = useCallback((files: File[], at?: Point) => {
    setAsking(false)
    for (const file of files) {
      const id = uuidv7()
      const change = (part: Partial<Upload>) =>
        setRunning((all) => all.map((u) => (u.id === id ? { ...u, ...part } : u)))
      const { done, cancel } = send<Uploaded>(
        `${handRef.current.bench.pictures}?name=${encodeURIComponent(file.name)}`,
        file,
        (share) => change({ share }),
      )
      setRunning((all) => [...all, { id, name: file.name, share: 0, cancel }])
      done
        .then((picture) => lay(handRef.current, picture, at))
        .catch((error: unknown) => error instanceof Refused && handRef.current.bench.tell(error.code))
        .finally(() => setRunning((all) => all.filter((u) => u.id !== id)))
    }
  }, [])
  return useMemo(
    () => ({ running, asking, ask: () => setAsking(true), close: () => setAsking(false), add }),
    [running, asking, add],
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

/** Where pictures come from, and those that are on their way, each of which can be stopped. */
export function Uploads({ uploads }: { uploads: UploadsHere }) {
  const { t } = useTranslation()
  const [camera, setCamera] = useState(false)
  return (
    <>
      {uploads.asking && (
        <Suspense fallback={null}>
          <PictureDialog
            onClose={uploads.close}
            onFiles={uploads.add}
            onCamera={() => {
              uploads.close()
              setCamera(true)
            }}
          />
        </Suspense>
      )}
      {camera && (
        <Suspense fallback={null}>
          <CameraView onClose={() => setCamera(false)} onTake={(file) => uploads.add([file])} />
        </Suspense>
      )}
      <ul
        className="absolute start-3 top-3 z-10 flex w-60 flex-col gap-2 empty:hidden"
        aria-label={t('upload.running')}
      >
        {uploads.running.map((u) => (
          <li
            key={u.id}
            className="flex items-center gap-2 rounded-xl border border-line bg-paper p-2 ps-3 text-sm shadow-md"
          >
            <span className="min-w-0 grow">
              <span className="block truncate">{u.name}</span>
              <progress aria-label={u.name} value={u.share} max={1} className="block h-2 w-full accent-dusk" />
            </span>
            <button
              type="button"
              aria-label={t('upload.stop', { name: u.name })}
              className="grid size-9 place-items-center rounded-lg text-slate hover:bg-mist"
              onClick={u.cancel}
            >
              <X size={17} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
    </>
  )
}
