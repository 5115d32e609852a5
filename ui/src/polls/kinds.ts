import { v7 as uuidv7 } from 'uuid'
import type { AnswerValue, Asked, Option, Question } from '../wire/types.gen'

type Kind = Question['kind']
type Of<K extends Kind> = Extract<Asked, { kind: K }>
type ValueOf<K extends Kind> = Extract<AnswerValue, { kind: K }>

/** What every kind of question has; its parts of the screen are in PollCard and PollEditor. */
type About<K extends Kind> = {
  /** A new question of this kind. */
  fresh: () => Of<K>
  /** Whether it has right answers. */
  hasRight: (asked: Of<K>) => boolean
  /** Whether an answer is right. */
  isRight: (asked: Of<K>, value: ValueOf<K>) => boolean
  /** How the answers stand, in the order of the question. */
  tally: (asked: Of<K>, values: ValueOf<K>[]) => number[]
}

/** The kinds of questions; to add one is to name it here and in core/poll. */
const kinds: { [K in Kind]: About<K> } = {
  choice: {
    fresh: () => ({ kind: 'choice', choice: { options: [1, 2, 3].map(() => ({ id: uuidv7(), text: '' })) } }),
    hasRight: ({ choice }) => choice.options.some((o) => o.right),
    isRight: ({ choice }, value) => choice.options.some((o) => o.right && o.id === value.choice.option),
    tally: ({ choice }, values) =>
      choice.options.map((o) => values.filter((value) => value.choice.option === o.id).length),
  },
  rank: {
    fresh: () => ({ kind: 'rank', rank: { options: [1, 2, 3].map(() => ({ id: uuidv7(), text: '' })) } }),
    hasRight: () => false,
    isRight: () => false,
    // Points, as core/poll gives them.
    tally: ({ rank: { options } }, values) =>
      options.map((o) => values.reduce((sum, v) => sum + options.length - 1 - v.rank.order.indexOf(o.id), 0)),
  },
}

/** What a question offers, whatever is done with it. */
export const optionsOf = (asked: Asked): Option[] =>
  asked.kind === 'choice' ? asked.choice.options : asked.rank.options

/** The question with other options. */
export const withOptions = (question: Question, options: Option[]): Question =>
  question.kind === 'choice' ? { ...question, choice: { options } } : { ...question, rank: { options } }

/** A new question of a kind. */
export const freshQuestion = (kind: Kind): Question => ({ text: '', ...kinds[kind].fresh() })

export const hasRight = (question: Question) => (kinds[question.kind] as About<Kind>).hasRight(question)

export const isRight = (question: Question, value: AnswerValue) =>
  (kinds[question.kind] as About<Kind>).isRight(question, value)

/** How many answers of each there are, in the order of the question. */
export const tallyOf = (question: Question, values: AnswerValue[]) =>
  (kinds[question.kind] as About<Kind>).tally(
    question,
    values.filter((v) => v.kind === question.kind),
  )
