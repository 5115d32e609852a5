import type { ComponentType } from 'react'
import type { Kind } from '../kinds'
import { Blanks } from './Blanks'
import { Boxes } from './Boxes'
import { Choice } from './Choice'
import { Draw } from './Draw'
import { Order, Rank } from './InOrder'
import { Match } from './Match'
import { Memory } from './Memory'
import { Places } from './Places'
import type { AnswerProps } from './props'
import { Scale } from './Scale'
import { Several } from './Several'
import { Truth } from './Truth'
import { NumberAnswer, OpenAnswer, ShortAnswer } from './Typed'

/** How each kind of question is answered. */
const answers: { [K in Kind]: ComponentType<AnswerProps<K>> } = {
  choice: Choice,
  several: Several,
  truth: Truth,
  number: NumberAnswer,
  short: ShortAnswer,
  open: OpenAnswer,
  scale: Scale,
  order: Order,
  rank: Rank,
  match: Match,
  blanks: Blanks,
  boxes: Boxes,
  places: Places,
  draw: Draw,
  memory: Memory,
}

/** What a question offers, with the answer as it stands. */
export function Answer(props: AnswerProps<Kind>) {
  const Kind = answers[props.asked.kind] as ComponentType<AnswerProps<Kind>>
  return <Kind {...props} given={props.given?.kind === props.asked.kind ? props.given : undefined} />
}
