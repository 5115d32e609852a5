import { useEffect, useRef } from 'react'

const SAVE_AFTER_MS = 600

/**
 * Saves what is written in a window a moment after it was written, and at the
 * latest when the window closes or the page goes. Saving what is saved is the
 * caller's to leave out.
 */
export function useSaving(value: unknown, save: () => void) {
  const latest = useRef(save)
  useEffect(() => {
    latest.current = save
  })
  useEffect(() => {
    const timer = setTimeout(() => latest.current(), SAVE_AFTER_MS)
    return () => clearTimeout(timer)
  }, [value])
  useEffect(() => {
    const now = () => latest.current()
    addEventListener('pagehide', now)
    return () => {
      removeEventListener('pagehide', now)
      now()
    }
  }, [])
}
