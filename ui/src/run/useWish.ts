import { useState } from 'react'
import type { Command } from '../wire/types.gen'
import { useStaffLesson } from '../wire/hooks/useStaff'

/**
 * A setting of the session: it is shown as wished at once, and as it is when
 * the server has answered. A refusal is told.
 */
export function useWish<Setting>(now: Setting, command: (wish: Setting) => Command) {
  const lesson = useStaffLesson()
  const [wish, setWish] = useState<{ is: Setting } | null>(null)
  async function set(is: Setting) {
    setWish({ is })
    await lesson.give(command(is))
    setWish((latest) => (latest?.is === is ? null : latest))
  }
  return [wish ? wish.is : now, (is: Setting) => void set(is)] as const
}
