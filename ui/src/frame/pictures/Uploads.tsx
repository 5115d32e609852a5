import { useCallback, useMemo, useRef, useState } from 'react'
import { later } from '../../kit/part'
import type { Point } from '../paint/geometry'
import type { Upload } from './uploading'
import type { Hand } from '../hand/hand'

const uploading = later(() => import('./uploading'))

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
    void uploading().then((m) => m.upload(handRef.current, files, at, setRunning))
  }, [])
  return useMemo(
    () => ({ running, asking, camera, toCamera, ask: () => setAsking(true), close: () => setAsking(false), add }),
    [running, asking, camera, add],
  )
}
