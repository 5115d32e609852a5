import { useEffect, useRef } from 'react'

/**
 * Makes a row of buttons one stop for Tab; the arrow keys, Home and End go along
 * it. Works on the page's own buttons, whoever puts them into the row.
 */
export function useRoving<Row extends HTMLElement>() {
  const row = useRef<Row>(null)
  useEffect(() => {
    const at = row.current
    if (!at) return
    const buttons = () => [...at.querySelectorAll<HTMLButtonElement>('button:not(:disabled)')]
    let stop: HTMLButtonElement | undefined
    const arrange = () => {
      const all = buttons()
      if (!stop || !all.includes(stop)) stop = all[0]
      for (const button of all) button.tabIndex = button === stop ? 0 : -1
    }
    const focus = (e: FocusEvent) => {
      if (e.target instanceof HTMLButtonElement) stop = e.target
      arrange()
    }
    const key = (e: KeyboardEvent) => {
      const all = buttons()
      const from = all.indexOf(e.target as HTMLButtonElement)
      const way = getComputedStyle(at).direction === 'rtl' ? -1 : 1
      const to =
        e.key === 'ArrowRight'
          ? from + way
          : e.key === 'ArrowLeft'
            ? from - way
            : e.key === 'Home'
              ? 0
              : e.key === 'End'
                ? all.length - 1
                : null
      if (from < 0 || to === null) return
      e.preventDefault()
      all.at(to % all.length)?.focus()
    }
    arrange()
    // Buttons come and go with what is selected.
    const watch = new MutationObserver(arrange)
    watch.observe(at, { subtree: true, childList: true, attributeFilter: ['disabled'] })
    at.addEventListener('focusin', focus)
    at.addEventListener('keydown', key)
    return () => {
      watch.disconnect()
      at.removeEventListener('focusin', focus)
      at.removeEventListener('keydown', key)
    }
  }, [])
  return row
}
