import { Check } from 'lucide-react'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { OptionPicture } from './OptionPicture'
import type { Option, Phase } from '../wire/types.gen'

type Props = {
  options: Option[]
  chosen?: string
  phase: Phase
  open: boolean
  counts?: number[]
  /** Left out where nobody can answer. */
  onChoose?: (option: string) => void
}

/** Answers of which one is chosen. */
export function Choice({ options, chosen, phase, open, counts, onChoose }: Props) {
  const { t } = useTranslation()
  const name = useId()
  const all = (counts ?? []).reduce((sum, n) => sum + n, 0)
  return (
    <div className="flex flex-col gap-[0.45em]">
      {options.map((option, i) => {
        const mine = option.id === chosen
        const shownRight = option.right === true && phase === 'revealed'
        const count = counts?.[i] ?? 0
        return (
          <label
            key={option.id}
            className={`relative flex items-center gap-[0.7em] overflow-hidden rounded-[0.5em] border-2 px-[0.7em] py-[0.5em] ${mine ? 'border-dusk bg-dusk-soft font-semibold' : 'border-edge bg-paper'} ${open ? 'cursor-pointer hover:bg-mist' : ''} has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`}
          >
            {counts && (
              <span
                aria-hidden="true"
                className={`absolute inset-y-0 start-0 ${shownRight ? 'bg-fern-soft' : 'bg-mist'}`}
                style={{ width: `${all ? (100 * count) / all : 0}%` }}
              />
            )}
            {onChoose && (
              <input
                type="radio"
                name={name}
                value={option.id}
                checked={mine}
                disabled={!open}
                onChange={() => onChoose(option.id)}
                className="relative size-[1.1em] shrink-0 accent-dusk outline-none"
              />
            )}
            <OptionPicture option={option} />
            <span dir="auto" className="relative grow">
              {option.text}
            </span>
            {shownRight && (
              <span className="relative inline-flex items-center gap-[0.25em] text-[0.85em] font-semibold text-fern-deep">
                <Check size="1.1em" aria-hidden="true" />
                {t('poll.right')}
              </span>
            )}
            {counts && (
              <span className="relative text-[0.85em] font-semibold tabular-nums">{t('poll.votes', { count })}</span>
            )}
          </label>
        )
      })}
    </div>
  )
}
