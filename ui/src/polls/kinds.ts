import { v4 as random } from 'uuid'
import type { AnswerValue, Asked, Option, Question } from '../wire/types.gen'

export type Kind = Question['kind']
/** What is asked, and what is answered, by kind. */
export type AskedOf<K extends Kind> = Extract<Asked, { kind: K }>
export type GivenOf<K extends Kind> = Extract<AnswerValue, { kind: K }>

/** Something to offer; ids where an order or a place is right say nothing of when they were made. */
export const option = (text = ''): Option => ({ id: random(), text })
const options = () => [1, 2, 3].map(() => option())

/** The kinds of questions, in the order in which they are offered: a new question of each. */
export const fresh: { [K in Kind]: () => AskedOf<K> } = {
  choice: () => ({ kind: 'choice', choice: { options: options() } }),
  several: () => ({ kind: 'several', several: { options: options() } }),
  truth: () => ({ kind: 'truth', truth: { notSure: true } }),
  number: () => ({ kind: 'number', number: { language: '', tolerance: { is: 'exact' } } }),
  short: () => ({ kind: 'short', short: { slips: 1 } }),
  open: () => ({ kind: 'open', open: {} }),
  scale: () => ({ kind: 'scale', scale: { steps: 5, low: '', high: '' } }),
  order: () => ({ kind: 'order', order: { options: options() } }),
  rank: () => ({ kind: 'rank', rank: { options: options() } }),
  match: () => ({ kind: 'match', match: { left: options(), right: options() } }),
  blanks: () => ({ kind: 'blanks', blanks: { parts: [{ text: '' }], slips: 1 } }),
  boxes: () => ({ kind: 'boxes', boxes: { boxes: [option(), option()], things: options() } }),
  places: () => ({ kind: 'places', places: { picture: '', most: 1 } }),
  draw: () => ({ kind: 'draw', draw: {} }),
  memory: () => ({ kind: 'memory', memory: { pairs: [1, 2, 3, 4].map(() => ({ one: option(), other: option() })) } }),
}

export const allKinds = Object.keys(fresh) as Kind[]

/** What a question offers to read, whatever is done with it; for small pictures and lists. */
export function optionsOf(q: Asked): Option[] {
  switch (q.kind) {
    case 'choice':
      return q.choice.options
    case 'several':
      return q.several.options
    case 'rank':
      return q.rank.options
    case 'order':
      return q.order.options
    case 'match':
      return q.match.left
    case 'boxes':
      return q.boxes.things
    default:
      return []
  }
}

/** Things in an order that is each student's own, and stays the same for them. */
export function shuffled<T extends { id: string }>(things: T[], seed: string): T[] {
  const key = (id: string) => {
    let hash = 2166136261
    for (const c of seed + id) hash = Math.imul(hash ^ c.codePointAt(0)!, 16777619)
    return hash >>> 0
  }
  return seed ? [...things].sort((a, b) => key(a.id) - key(b.id)) : things
}
