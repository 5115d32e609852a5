import { lazy, type ComponentType } from 'react'

const RETRY_MS = 2000
/** When the first screen has settled. */
const SETTLED_MS = 4000

// A component of any properties, as React's own lazy has it.
// oxlint-disable-next-line typescript/no-explicit-any
type Any = ComponentType<any>

const waiting: Array<() => Promise<unknown>> = []
let fetching = false

/** Loads something, again and again where there is no network, until it comes. */
export const patient =
  <Loaded>(load: () => Promise<Loaded>) =>
  (): Promise<Loaded> =>
    load().catch(() => pause(RETRY_MS).then(patient(load)))

/**
 * A part of a screen that is loaded when it is first shown, or by fetchParts
 * before that.
 */
export function part<Part extends Any>(load: () => Promise<{ default: Part }>) {
  const loading = patient(load)
  waiting.push(loading)
  return lazy(loading)
}

/** Something else than a part of a screen that is loaded when it is first needed, or by fetchParts before that. */
export function later<Loaded>(load: () => Promise<Loaded>): () => Promise<Loaded> {
  const loading = patient(load)
  waiting.push(loading)
  return loading
}

/**
 * Loads all parts one after the other once the screen has settled, so that
 * they are there when the network breaks.
 */
export async function fetchParts() {
  if (fetching) return
  fetching = true
  await pause(SETTLED_MS)
  // Parts may bring parts of their own.
  for (let next = waiting.shift(); next; next = waiting.shift()) await next()
  fetching = false
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
