import { expect, test } from 'vitest'
import file from '../../../../core/session/testdata/places.json?raw'
import type { Board, State } from '../../wire/types.gen'
import { openFrames, placeOf } from '../places'

test('where students are is what the core says', () => {
  type Place = { state: State; at?: string; place: string; open: string[] }
  const places = JSON.parse(file) as Place[]
  expect(new Set(places.map((p) => p.place))).toEqual(new Set(['one', 'two', 'three']))
  const board = { title: '', frames: ['one', 'two', 'three'].map((frame) => ({ id: frame })) } as Board
  for (const { state, at, place, open } of places) {
    expect(placeOf(board, state, { id: 'a', name: 'Noor', at })).toBe(place)
    expect(openFrames(board, state)).toEqual(open)
  }
})
