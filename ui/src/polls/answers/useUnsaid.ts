import { useEffect, useRef } from 'react'

/**
 * Gives what was begun and not given yet when its question is closed, when somebody goes on to another, or when
 * the page goes; null while there is nothing.
 */
export function useUnsaid(open: boolean, give: (() => void) | null) {
  const unsaid = useRef<(() => void) | null>(null)
  useEffect(() => {
    if (!open) unsaid.current?.() // it was closed meanwhile: late, and kept
    unsaid.current = open ? give : null
  })
  useEffect(() => {
    const now = () => unsaid.current?.()
    addEventListener('pagehide', now)
    return () => {
      removeEventListener('pagehide', now)
      now()
    }
  }, [])
}
