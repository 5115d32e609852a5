import { useId } from 'react'
import { shuffled } from '../kinds'
import { OptionPicture } from './OptionPicture'
import { row, type AnswerProps } from './props'
import { RightSign } from './RightSign'

/** Answers of which one is chosen. */
export function Choice({ asked, given, open, revealed, onGive, seed }: AnswerProps<'choice'>) {
  const name = useId()
  return (
    <div className="flex flex-col gap-[0.45em]">
      {shuffled(asked.choice.options, seed).map((option) => {
        const mine = option.id === given?.choice.option
        return (
          <label key={option.id} className={row(mine, open)}>
            {onGive && (
              <input
                type="radio"
                name={name}
                value={option.id}
                checked={mine}
                disabled={!open}
                onChange={() => onGive({ kind: 'choice', choice: { option: option.id } })}
                className="relative size-[1.1em] shrink-0 accent-dusk outline-none"
              />
            )}
            <OptionPicture option={option} />
            <span dir="auto" className="relative grow">
              {option.text}
            </span>
            {revealed && option.right && <RightSign />}
          </label>
        )
      })}
    </div>
  )
}
