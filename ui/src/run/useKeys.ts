import { useEffect } from 'react'

/** The keys of what is needed every minute, by the sign that a part bears as `data-key`. */
const KEYS: Record<string, string> = { KeyP: 'pause', KeyT: 'timer', KeyF: 'front', KeyL: 'lock' }

const WRITES = 'textarea, [contenteditable], input:not([type=checkbox], [type=radio])'

/** Alt and a letter press what bears its sign on this screen, wherever the focus is, unless somebody writes or a window is open. */
export function useKeys() {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const sign = KEYS[e.code]
      if (!sign || !e.altKey || e.ctrlKey || e.metaKey || e.shiftKey) return
      if (document.querySelector('[role="dialog"]')) return
      // On some keyboards Alt and a letter write a sign.
      if (e.target instanceof Element && e.target.matches(WRITES)) return
      const part = document.querySelector<HTMLElement>(`[data-key="${sign}"]`)
      if (!part) return
      e.preventDefault()
      part.focus()
      // Menus open by a key or a pointer, not by a click that came from neither.
      if (part.getAttribute('aria-haspopup') === 'menu')
        part.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
      else part.click()
    }
    document.addEventListener('keydown', press, true)
    return () => document.removeEventListener('keydown', press, true)
  }, [])
}
