import type { AskedOf, Kind } from '../kinds'

/** Has somebody choose a picture; calls back with its id and name. */
export type PickPicture = (done: (picture: { id: string; name: string }) => void) => void

/** What the fields of every kind are given. */
export type FieldsProps<K extends Kind> = {
  asked: AskedOf<K>
  onAsked: (to: AskedOf<K>) => void
  /** Left out where no pictures can be chosen. */
  pick?: PickPicture
}

export const field = 'min-h-10 min-w-0 rounded-lg border border-edge bg-paper px-2.5 py-1.5'
