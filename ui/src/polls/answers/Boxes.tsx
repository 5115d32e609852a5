import { Check } from 'lucide-react'
import { useId } from 'react'
import { shuffled } from '../kinds'
import { OptionPicture } from './OptionPicture'
import { type AnswerProps } from './props'

/** Things that are sorted into boxes: for each one a box is pressed. */
export function Boxes({ asked, given, open, revealed, onGive, seed }: AnswerProps<'boxes'>) {
  const name = useId()
  const { boxes, homes = [] } = asked.boxes
  const lies = given?.boxes.in ?? []
  return (
    <ul className="flex flex-col gap-[0.45em]">
      {shuffled(asked.boxes.things, seed).map((thing) => {
        const mine = lies.find((p) => p.thing === thing.id)?.box
        const home = homes.find((p) => p.thing === thing.id)?.box
        return (
          <li key={thing.id}>
            <fieldset className="flex flex-wrap items-center gap-[0.4em] rounded-[0.5em] border-2 border-edge bg-paper px-[0.6em] py-[0.4em]">
              <legend className="contents">
                <span className="flex grow basis-full items-center sm:basis-0 gap-[0.6em] font-semibold">
                  <OptionPicture option={thing} />
                  <span dir="auto">{thing.text}</span>
                </span>
              </legend>
              {boxes.map((box) => (
                <label
                  key={box.id}
                  className={`flex min-h-[2.2em] items-center gap-[0.4em] rounded-[0.4em] border-2 px-[0.6em] ${mine === box.id ? 'border-dusk bg-dusk-soft font-semibold' : 'border-line bg-paper'} ${open ? 'cursor-pointer hover:bg-mist' : ''} has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`}
                >
                  {onGive && (
                    <input
                      type="radio"
                      name={`${name} ${thing.id}`}
                      checked={mine === box.id}
                      disabled={!open}
                      onChange={() =>
                        onGive({
                          kind: 'boxes',
                          boxes: {
                            in: [...lies.filter((p) => p.thing !== thing.id), { thing: thing.id, box: box.id }],
                          },
                        })
                      }
                      className="size-[1em] accent-dusk outline-none"
                    />
                  )}
                  <OptionPicture option={box} />
                  <span dir="auto">{box.text}</span>
                  {revealed && home === box.id && <Check size="1.1em" className="text-fern-deep" aria-hidden="true" />}
                </label>
              ))}
            </fieldset>
          </li>
        )
      })}
    </ul>
  )
}
