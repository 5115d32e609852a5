import type { AnswerValue } from '../../wire/types.gen'
import type { AskedOf, GivenOf, Kind } from '../kinds'

/** What every kind's answer is given. */
export type AnswerProps<K extends Kind> = {
  asked: AskedOf<K>
  /** The answer as it stands. */
  given?: GivenOf<K>
  /** Whether an answer may be given now. */
  open: boolean
  /** What is right is shown. */
  revealed: boolean
  /** Left out where nobody can answer. */
  onGive?: (value: AnswerValue) => void
  /** What was begun is given by itself when one goes on: where one goes from question to question. */
  keeps?: boolean
  /** By what each student's own order is found; empty for the order as it is. */
  seed: string
}

/** The look of a button that gives an answer. */
export const give =
  'min-h-[2.4em] self-start rounded-[0.5em] bg-dusk px-[1em] py-[0.4em] font-semibold text-paper disabled:bg-slate'
/** The look of a field. */
export const field = 'min-h-[2.4em] w-full min-w-0 rounded-[0.4em] border-2 border-edge bg-paper px-[0.6em] py-[0.3em]'
/** The look of a row that can be taken. */
export const row = (mine: boolean, open: boolean) =>
  `relative flex items-center gap-[0.7em] overflow-hidden rounded-[0.5em] border-2 px-[0.7em] py-[0.5em] ${mine ? 'border-dusk bg-dusk-soft font-semibold' : 'border-edge bg-paper'} ${open ? 'cursor-pointer hover:bg-mist' : ''} has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`
