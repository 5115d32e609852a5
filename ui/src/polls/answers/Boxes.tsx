import { Check } from 'lucide-react'
import { useId } from 'react'
import { shuffled } from '../kinds'
import { Grip } from './Grip'
import { OptionPicture } from './OptionPicture'
import { useDrag } from './useDrag'
import { type AnswerProps } from './props'

/** Things that are sorted into boxes: for each one a box is pressed, or it is dragged there. */
export function Boxes({ asked, given, open, revealed, onGive, seed }: AnswerProps<'boxes'>) {
  const name = useId()
  const { boxes, homes = [] } = asked.boxes
  const lies = given?.boxes.in ?? []
  const put = (thing: string, box: string) =>
    onGive?.({ kind: 'boxes', boxes: { in: [...lies.filter((p) => p.thing !== thing), { thing, box }] } })
  const drag = useDrag(put)
  const things = shuffled(asked.boxes.things, seed)
  const drags = onGive && open
  return (
    <div data-drags>
      <ul className="flex flex-col gap-[0.45em]">
        {things.map((thing) => {
          const mine = lies.find((p) => p.thing === thing.id)?.box
          const home = homes.find((p) => p.thing === thing.id)?.box
          return (
            <li key={thing.id} data-drag className={`relative ${drag.dragged === thing.id ? 'z-10 shadow-lg' : ''}`}>
              <fieldset className="flex flex-wrap items-center gap-[0.4em] rounded-[0.5em] border-2 border-edge bg-paper px-[0.6em] py-[0.4em]">
                <legend className="contents">
                  <span className="flex grow basis-full items-center sm:basis-0 gap-[0.6em] font-semibold">
                    {drags && <Grip {...drag.handle(thing.id)} />}
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
                        onChange={() => put(thing.id, box.id)}
                        className="size-[1em] accent-dusk outline-none"
                      />
                    )}
                    <OptionPicture option={box} />
                    <span dir="auto">{box.text}</span>
                    {revealed && home === box.id && (
                      <Check size="1.1em" className="text-fern-deep" aria-hidden="true" />
                    )}
                  </label>
                ))}
              </fieldset>
            </li>
          )
        })}
      </ul>
      {drags && (
        // A few boxes stay in sight however many things there are.
        <ul
          aria-hidden="true"
          className={`mt-[0.6em] grid grid-cols-2 gap-[0.45em] bg-paper py-[0.3em] sm:grid-cols-3 ${boxes.length <= 4 ? 'sticky bottom-0 z-[5]' : ''}`}
        >
          {boxes.map((box) => (
            <li
              key={box.id}
              data-drop={box.id}
              className={`min-h-[5em] rounded-[0.5em] border-2 border-dashed p-[0.5em] ${drag.over === box.id ? 'border-dusk bg-dusk-soft' : 'border-edge'}`}
            >
              <span dir="auto" className="block text-[0.85em] font-semibold text-slate">
                {box.text}
              </span>
              {things
                .filter((o) => lies.some((p) => p.thing === o.id && p.box === box.id))
                .map((o) => (
                  <span
                    key={o.id}
                    dir="auto"
                    className="me-[0.3em] mt-[0.3em] inline-block rounded-[0.4em] bg-dusk-soft px-[0.5em]"
                  >
                    {o.text}
                  </span>
                ))}
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
