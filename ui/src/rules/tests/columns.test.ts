import { expect, test } from 'vitest'
import file from '../../../../core/columns/testdata/laid.json?raw'
import { layColumns, roomOf, type Laid, type Spot } from '../columns'

test('columns are laid as the core lays them', () => {
  type Upright = { X: number; Y: number; W: number; H: number }
  type Case = {
    room: Upright
    taken: Upright[]
    count: number
    prompts: boolean
    chars: number[]
    in: number[]
    from: number[]
    inside: Upright
    laid: Laid
  }
  const cases = JSON.parse(file) as Case[]
  const box = ({ X: x, Y: y, W: w, H: h }: Upright) => ({ x, y, w, h })
  expect(cases.some((c) => c.laid.beyond.some((n) => n > 0))).toBe(true)
  for (const { room, taken, count, prompts, chars, in: columns, from, inside, laid } of cases) {
    expect(roomOf(box(room), taken.map(box))).toEqual(box(inside))
    const notes = chars.map((n, i) => ({
      column: columns[i]!,
      tall: (letters: number, width: number) =>
        38 + Math.max(1, Math.ceil((n * letters * 0.5) / (width - 38))) * letters * 1.35,
    }))
    const mine = layColumns(box(inside), count, prompts, notes, from)
    const micro = (n: number) => Math.round(n * 1e6)
    const spot = (s: Spot) => [micro(s.x), micro(s.y), micro(s.w), s.beyond ?? false]
    expect({ ...mine, spots: mine.spots.map(spot) }).toEqual({ ...laid, spots: laid.spots.map(spot) })
  }
})
