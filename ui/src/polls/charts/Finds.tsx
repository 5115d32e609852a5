import { useTranslation } from 'react-i18next'
import type { FindsChart } from '../../wire/types.gen'
import { Bars } from './Bars'

/** How far a game has come: what all found together, and how many students are how far, never who. */
export function Finds({ chart, answered }: { chart: FindsChart; answered: number }) {
  const { t } = useTranslation()
  const of = chart.students.length
  const bars = chart.students
    .map((count, i) => ({
      id: `${i + 1}`,
      text: i + 1 === of ? t('poll.findsAll', { count: of }) : t('poll.finds', { count: i + 1 }),
      count,
      span: { low: 0, high: 1 },
    }))
    .reverse()
  return (
    <>
      <p className="mb-[0.5em] font-semibold">{t('poll.findsTogether', { pairs: chart.pairs, count: chart.turns })}</p>
      <Bars chart={{ bars }} answered={answered} options={[]} />
    </>
  )
}
