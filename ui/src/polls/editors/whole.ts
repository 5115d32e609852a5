import type { Option, Question, TextMistake } from '../../wire/types.gen'

const written = (o: Option) => o.text.trim() !== '' || o.picture !== undefined
/** Those that somebody has filled in; all while these are too few. */
const filled = (list: Option[], least = 2) => {
  const some = list.filter(written)
  return some.length >= least ? some : list
}
const named = (list: TextMistake[] | undefined) =>
  list
    ?.map((m) => ({ ...m, texts: m.texts.map((x) => x.trim()).filter(Boolean) }))
    .filter((m) => m.name.trim() && m.texts.length > 0)
const some = <T>(list: T[] | undefined) => (list && list.length > 0 ? list : undefined)

const isLink = (text: string) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)

/** A question without what was begun and not filled in. */
export function whole(asked: Question): Question {
  const q = asked.link && !isLink(asked.link) ? { ...asked, link: undefined } : asked
  switch (q.kind) {
    case 'choice':
      return { ...q, choice: { options: filled(q.choice.options) } }
    case 'several':
      return { ...q, several: { options: filled(q.several.options) } }
    case 'rank':
      return { ...q, rank: { options: filled(q.rank.options) } }
    case 'order': {
      const options = filled(q.order.options)
      // An order that lacks something, or has what is there no more, is none.
      const mistakes = q.order.mistakes?.filter(
        (m) => m.name.trim() && m.order.length === options.length && options.every((o) => m.order.includes(o.id)),
      )
      return { ...q, order: { options, mistakes: some(mistakes) } }
    }
    case 'short':
      return {
        ...q,
        short: {
          ...q.short,
          accepted: some(q.short.accepted?.map((x) => x.trim()).filter(Boolean)),
          mistakes: some(named(q.short.mistakes)),
        },
      }
    case 'number':
      return {
        ...q,
        number: {
          ...q.number,
          mistakes: some(q.number.mistakes?.filter((m) => m.name.trim() && m.from.trim())),
          ...(!q.number.answer && { tolerance: { is: 'exact' } }),
        },
      }
    case 'match': {
      const { left, right, pairs = [] } = q.match
      const l = left.filter(written)
      const both = pairs.filter(
        (p) => l.some((o) => o.id === p.left) && right.some((o) => o.id === p.right && written(o)),
      )
      const mistakes = q.match.mistakes?.filter(
        (m) =>
          m.name.trim() &&
          both.some((p) => p.left === m.left) &&
          right.some((o) => o.id === m.right && written(o)) &&
          !both.some((p) => p.left === m.left && p.right === m.right),
      )
      if (both.length === 0) return { ...q, match: { ...q.match, mistakes: undefined } }
      return {
        ...q,
        match: {
          ...q.match,
          left: l.filter((o) => both.some((p) => p.left === o.id)),
          right: right.filter(written),
          pairs: both,
          mistakes: some(mistakes),
        },
      }
    }
    case 'boxes': {
      const [boxes, things] = [filled(q.boxes.boxes), filled(q.boxes.things, 1)]
      const homes = (q.boxes.homes ?? []).filter(
        (h) => boxes.some((b) => b.id === h.box) && things.some((o) => o.id === h.thing),
      )
      const mistakes = q.boxes.mistakes?.filter(
        (m) =>
          m.name.trim() &&
          boxes.some((b) => b.id === m.box) &&
          things.some((o) => o.id === m.thing) &&
          !homes.some((h) => h.thing === m.thing && h.box === m.box),
      )
      return { ...q, boxes: { ...q.boxes, boxes, things, homes: some(homes), mistakes: some(mistakes) } }
    }
    case 'memory': {
      const pairs = q.memory.pairs.filter((p) => written(p.one) && written(p.other))
      return { ...q, memory: { pairs: pairs.length >= 2 ? pairs : q.memory.pairs } }
    }
    default:
      return q
  }
}
