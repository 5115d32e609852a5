import type { ComponentType } from 'react'
import type { Kind } from '../kinds'
import { MemoryFields } from './Cards'
import { NumberFields } from './Numbers'
import { ChoiceFields, OrderFields, RankFields, SeveralFields } from './Options'
import { PlacesFields } from './Places'
import type { FieldsProps } from './props'
import { BoxesFields, MatchFields } from './Sides'
import { NoFields, ScaleFields, TruthFields } from './Small'
import { BlanksFields, ShortFields } from './Words'

/** How each kind of question is written. */
const fields: { [K in Kind]: ComponentType<FieldsProps<K>> } = {
  choice: ChoiceFields,
  several: SeveralFields,
  truth: TruthFields,
  number: NumberFields,
  short: ShortFields,
  open: NoFields,
  scale: ScaleFields,
  order: OrderFields,
  rank: RankFields,
  match: MatchFields,
  blanks: BlanksFields,
  boxes: BoxesFields,
  places: PlacesFields,
  draw: NoFields,
  memory: MemoryFields,
}

/** The fields of a question's kind. */
export function Fields(props: FieldsProps<Kind>) {
  const Kind = fields[props.asked.kind] as ComponentType<FieldsProps<Kind>>
  return <Kind {...props} />
}
