import { shuffled } from '../kinds'
import { OptionPicture } from './OptionPicture'
import { row, type AnswerProps } from './props'
import { RightSign } from './RightSign'

/** Answers of which any number is chosen. */
export function Several({ asked, given, open, revealed, onGive, seed }: AnswerProps<'several'>) {
  const chosen = given?.several.options ?? []
  return (
    <div className="flex flex-col gap-[0.45em]">
      {shuffled(asked.several.options, seed).map((option) => {
        const mine = chosen.includes(option.id)
        return (
          <label key={option.id} className={row(mine, open)}>
            {onGive && (
              <input
                type="checkbox"
                checked={mine}
                // The last one stays: no answer is another thing than none of these.
                disabled={!open || (mine && chosen.length === 1)}
                onChange={() =>
                  onGive({
                    kind: 'several',
                    several: { options: mine ? chosen.filter((id) => id !== option.id) : [...chosen, option.id] },
                  })
                }
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
