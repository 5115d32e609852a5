import type { AnswerTally, Asked } from '../../wire/types.gen'
import { optionsOf } from '../kinds'
import { Bars } from './Bars'
import { Finds } from './Finds'
import { Grid } from './Grid'
import { Ladder } from './Ladder'
import { Numbers } from './Numbers'
import { Points } from './Points'
import { Texts } from './Texts'

/** How the answers to a question stand, as the picture that fits its kind. */
export function Chart({ tally, asked, spans }: { tally: AnswerTally; asked: Asked; spans?: boolean }) {
  const { chart, answered } = tally
  switch (chart?.kind) {
    case 'bars':
      return <Bars chart={chart.bars} answered={answered} options={optionsOf(asked)} spans={spans} />
    case 'numbers':
      return <Numbers chart={chart.numbers} />
    case 'ladder':
      return <Ladder chart={chart.ladder} answered={answered} />
    case 'texts':
      return <Texts chart={chart.texts} answered={answered} />
    case 'grid':
      return <Grid chart={chart.grid} answered={answered} />
    case 'points':
      return <Points chart={chart.points} />
    case 'finds':
      return <Finds chart={chart.finds} answered={answered} />
    default:
      return null
  }
}
