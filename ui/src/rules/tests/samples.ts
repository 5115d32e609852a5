// What several tests begin with.
import type { Element, Op } from '../../wire/types.gen'

export const sheet = 's'
/** A version 7 UUID with a number in it. */
export const id = (n: number) => `0190a0b0-0000-7000-8000-${String(n).padStart(12, '0')}`
/** A note. */
export const mark = (name: string, x: number, author = 'noor'): Element => ({
  id: name,
  author,
  z: x,
  at: 1,
  x,
  y: 0,
  w: 100,
  h: 100,
  kind: 'note',
  note: { text: name, tint: 'moss' },
})
export const add = (n: number, name: string, x: number): Op => ({
  id: id(n),
  sheet,
  kind: 'add',
  add: { mark: name, x, y: 0, w: 100, h: 100, kind: 'note', note: { text: name, tint: 'moss' } },
})
export const move = (n: number, name: string, x: number): Op => ({
  id: id(n),
  sheet,
  kind: 'set',
  set: { mark: name, x },
})
/** A sheet as the server gives it, up to a number. */
export const view = (seq: number, ...marks: Element[]) => ({
  sheet,
  frame: 'f',
  owner: 'class',
  to: { seq },
  anew: true,
  put: marks,
})
