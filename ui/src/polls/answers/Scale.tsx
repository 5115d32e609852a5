import { useId } from 'react'
import { row, type AnswerProps } from './props'

/** Steps on a scale, with words at its ends. */
export function Scale({ asked, given, open, onGive }: AnswerProps<'scale'>) {
  const name = useId()
  const { steps, low, high } = asked.scale
  return (
    <div>
      <div className="flex gap-[0.3em]">
        {Array.from({ length: steps }, (_, i) => i + 1).map((step) => {
          const mine = given?.scale.step === step
          const words = step === 1 ? low : step === steps ? high : ''
          return (
            <label
              key={step}
              className={`${row(mine, open)} min-w-0 grow basis-0 flex-col justify-center gap-[0.2em]! px-0!`}
            >
              {onGive && (
                <input
                  type="radio"
                  name={name}
                  aria-label={words ? `${step}: ${words}` : `${step}`}
                  checked={mine}
                  disabled={!open}
                  onChange={() => onGive({ kind: 'scale', scale: { step } })}
                  className="size-[1.1em] shrink-0 accent-dusk outline-none"
                />
              )}
              <span className="tabular-nums">{step}</span>
            </label>
          )
        })}
      </div>
      <p className="mt-[0.3em] flex justify-between gap-[1em] text-[0.85em] text-slate" aria-hidden={Boolean(onGive)}>
        <span dir="auto">{low}</span>
        <span dir="auto" className="text-end">
          {high}
        </span>
      </p>
    </div>
  )
}
