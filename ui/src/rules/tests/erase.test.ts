import { expect, test } from 'vitest'
import file from '../../../../core/ink/testdata/cuts.json?raw'
import { caught } from '../../frame/paint/geometry'
import { cut } from '../erase'

test('the eraser and the lasso compute what the core computes', () => {
  type Cut = {
    path: number[]
    radius: number
    line: number[]
    touched: boolean
    pieces: number[][] | null
    caught: boolean
  }
  const cuts = JSON.parse(file) as Cut[]
  expect(cuts.filter((c) => c.touched).length).toBeGreaterThan(10)
  for (const { path, radius, line, touched, pieces, caught: inLasso } of cuts) {
    const mine = cut({ path, radius }, line)
    expect(mine !== null).toBe(touched)
    if (touched) {
      expect(mine!.map((p) => p.length)).toEqual((pieces ?? []).map((p) => p.length))
      mine!.forEach((piece, i) => piece.forEach((n, k) => expect(n).toBeCloseTo(pieces![i]![k]!, 6)))
    }
    const lasso = Array.from({ length: path.length / 2 }, (_, i) => ({ x: path[2 * i]!, y: path[2 * i + 1]! }))
    expect(caught(line, lasso)).toBe(inLasso)
  }
})
