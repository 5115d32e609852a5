import { spawn, type ChildProcess } from 'node:child_process'
import { join as path } from 'node:path'

const crowds: ChildProcess[] = []

/** Sends a simulated class into a lesson, which works along at twice human pace until the test ends. */
export function crowd(url: string, code: string, students: number, pace = 0.5) {
  const args = ['rehearse', '-url', url, '-code', code, '-students', String(students), '-pace', String(pace)]
  crowds.push(spawn(path(import.meta.dirname, '../../bin/alpenglow'), args, { stdio: 'ignore' }))
}

/** Ends all of them. */
export function disperse() {
  for (const one of crowds.splice(0)) one.kill()
}
