/** The frame's own place for the keyboard, where no mark has the focus. */
const place = () => document.querySelector<HTMLElement>('[data-part="workplace"]')

/** Gives a mark the focus, or the frame where it is not there. */
export function focusMark(id: string) {
  const part = document.querySelector<HTMLElement>(`[data-mark="${id}"]`) ?? place()
  part?.focus({ preventScroll: true })
}

/** Does something that takes marks away; the keyboard goes on at the mark behind them, or before, or at the frame. */
export function focusBehind(ids: ReadonlySet<string>, away: () => void) {
  const all = [...document.querySelectorAll<HTMLElement>('[data-part="frame"] [data-mark]')]
  const goes = (part: HTMLElement) => ids.has(part.dataset.mark!)
  const first = all.findIndex(goes)
  const behind = all.slice(Math.max(0, first)).find((part) => !goes(part))
  const before = all.slice(0, Math.max(0, first)).findLast((part) => !goes(part))
  const next = behind ?? before ?? place()
  away()
  next?.focus({ preventScroll: true })
}
