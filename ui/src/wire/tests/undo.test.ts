import { afterEach, expect, test, vi } from 'vitest'
import { id, sheet } from '../../rules/tests/samples'
import { UndoPile } from '../undo'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('the undo pile keeps 300 steps, the order, and the word of the server', () => {
  vi.useFakeTimers()
  const kept = new Map<string, string>()
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  })
  const remove = (n: number, mark: string) => ({
    of: id(n),
    deed: { sheet, kind: 'remove' as const, remove: { mark } },
  })
  const pile = new UndoPile('seat')
  for (let i = 0; i < 350; i++) pile.did(sheet, [remove(i, `m${i}`)])
  pile.confirmed(sheet, id(349), remove(0, 'as the server says').deed)
  pile.refused(sheet, id(348))
  vi.runAllTimers() // it is written a moment later
  const reloaded = new UndoPile('seat')
  const first = reloaded.undo(sheet)
  expect(first).toEqual([remove(0, 'as the server says').deed])
  reloaded.undid(sheet, [{ of: id(400), deed: { sheet, kind: 'restore', restore: { mark: 'm349' } } }])
  expect([...reloaded.redoable()]).toEqual([sheet])
  expect(reloaded.undo(sheet)).toEqual([remove(0, 'm347').deed])
  let left = 0
  while (reloaded.undo(sheet)) left++
  expect(left).toBe(297)
  reloaded.did(sheet, [remove(401, 'new')])
  expect(reloaded.redo(sheet)).toBeNull()
})
