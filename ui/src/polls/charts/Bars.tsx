import { useTranslation } from 'react-i18next'
import type { BarsChart, Option } from '../../wire/types.gen'
import { OptionPicture } from '../answers/OptionPicture'
import { RightSign } from '../answers/RightSign'

type Props = { chart: BarsChart; answered: number; options: Option[]; spans?: boolean }

/** Counts of what is offered; with spans, over each bar between what shares it may be of so few. */
export function Bars({ chart, answered, options, spans = false }: Props) {
  const { t } = useTranslation()
  return (
    <ul className="flex flex-col gap-[0.45em]">
      {chart.bars.map((bar) => {
        const option = options.find((o) => o.id === bar.id)
        const words = bar.text || (isTruth(bar.id) ? t(`poll.truth_${bar.id}`) : '')
        return (
          <li key={bar.id}>
            <div className="relative flex items-center gap-[0.7em] overflow-hidden rounded-[0.5em] border-2 border-edge bg-paper px-[0.7em] py-[0.5em]">
              <span
                aria-hidden="true"
                className={`absolute inset-y-0 start-0 ${bar.right ? 'bg-fern-soft' : 'bg-mist'}`}
                style={{ width: `${answered ? (100 * bar.count) / answered : 0}%` }}
              />
              {spans && answered > 0 && (
                <span
                  aria-hidden="true"
                  className="absolute bottom-[0.15em] h-[0.35em] border-x-2 border-b-2 border-night"
                  style={{
                    insetInlineStart: `${100 * bar.span.low}%`,
                    width: `${100 * (bar.span.high - bar.span.low)}%`,
                  }}
                />
              )}
              {option && <OptionPicture option={option} />}
              <span dir="auto" className="relative min-w-0 grow break-words">
                {words}
                {bar.mistake && <span className="block text-[0.8em] text-amber">{bar.mistake}</span>}
              </span>
              {bar.right && <RightSign />}
              <span className="relative text-[0.85em] font-semibold tabular-nums">
                {t('poll.votes', { count: bar.count })}
              </span>
            </div>
          </li>
        )
      })}
    </ul>
  )
}

const isTruth = (id: string): id is 'true' | 'false' | 'notSure' => ['true', 'false', 'notSure'].includes(id)
