import type { Answer, AnswerValue, Element } from '../wire/types.gen'
import { isRemoved } from './standing'

/** The id of the mark that holds a student's answer in a round; as core/poll has it. */
export const answerID = (poll: string, round: number) => (round <= 1 ? poll : `${poll}~${round}`)

/** The id of the mark that says that a set was handed in; as core/lesson has it. */
export const handedID = (frame: string, round: number) => `${frame}~in~${round}`

/** An answer, or that a set was handed in: nobody sees, moves, hides or clears these on a frame. */
export const isAnswer = (mark: Element) => mark.kind === 'answer' || mark.kind === 'handed'

/** The answers to a poll in a round among marks. */
export const answersIn = (marks: readonly Element[], poll: string, round: number): Answer[] =>
  marks.flatMap((m) =>
    m.kind === 'answer' && m.answer.poll === poll && m.answer.round === round && !isRemoved(m) ? [m.answer] : [],
  )

/** Answers that are kept, as marks of the frame that they were given on. */
export const marksOf = (answers: readonly { poll: string; round: number; value: AnswerValue }[]): Element[] =>
  answers.map(({ poll, round, value }) => ({
    id: answerID(poll, round),
    z: 0,
    at: 0,
    x: 0,
    y: 0,
    w: 0,
    h: 0,
    kind: 'answer',
    answer: { poll, round, value },
  }))
