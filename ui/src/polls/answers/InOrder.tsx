import { ArrowDown, ArrowUp } from 'lucide-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Option } from '../../wire/types.gen'
import { shuffled } from '../kinds'
import { Grip } from './Grip'
import { OptionPicture } from './OptionPicture'
import { useDrag } from './useDrag'
import { useUnsaid } from './useUnsaid'
import { give, type AnswerProps } from './props'

/** Things that are put into the right order. */
export function Order({ asked, given, open, onGive, seed, keeps }: AnswerProps<'order'>) {
  return (
    <InOrder
      options={shuffled(asked.order.options, seed)}
      chosen={given?.order.order}
      open={open}
      keeps={keeps}
      onRank={onGive && ((order) => onGive({ kind: 'order', order: { order } }))}
    />
  )
}

/** Things that are put into an order of preference. */
export function Rank({ asked, given, open, onGive, seed, keeps }: AnswerProps<'rank'>) {
  return (
    <InOrder
      options={shuffled(asked.rank.options, seed)}
      chosen={given?.rank.order}
      open={open}
      keeps={keeps}
      onRank={onGive && ((order) => onGive({ kind: 'rank', rank: { order } }))}
    />
  )
}

type Props = {
  options: Option[]
  chosen?: string[]
  open: boolean
  keeps?: boolean
  onRank?: (order: string[]) => void
}

/** Things in an order, moved up and down. */
function InOrder({ options, chosen, open, keeps, onRank }: Props) {
  const { t } = useTranslation()
  const [begun, setBegun] = useState<string[] | null>(null)
  const list = useRef<HTMLOListElement>(null)
  const given = onRank ? (begun ?? chosen ?? options.map((o) => o.id)) : options.map((o) => o.id)
  const moved = begun !== null && begun.join() !== chosen?.join()
  useUnsaid(open, keeps && onRank && moved ? () => onRank(begun) : null)
  const button =
    'grid size-[2em] shrink-0 place-items-center rounded-[0.4em] border-2 border-edge bg-paper disabled:opacity-40'
  function move(at: number, by: -1 | 1) {
    const next = [...given]
    ;[next[at], next[at + by]] = [next[at + by]!, next[at]!]
    setBegun(next)
    // The focus goes with what was moved.
    requestAnimationFrame(() => {
      const buttons = [...(list.current?.children[at + by]?.querySelectorAll('button') ?? [])]
      const same = buttons.find((b) => b.dataset.by === `${by}` && !b.disabled)
      ;(same ?? buttons.find((b) => !b.disabled))?.focus()
    })
  }
  // What is dragged takes the place of what it is over.
  const drag = useDrag(
    () => undefined,
    (what, on) => {
      const to = given.indexOf(on)
      const next = given.filter((id) => id !== what)
      next.splice(to, 0, what)
      setBegun(next)
    },
  )
  return (
    <div className="flex flex-col gap-[0.6em]" data-drags>
      <ol ref={list} className="flex flex-col gap-[0.45em]">
        {given.map((id, at) => {
          const i = options.findIndex((o) => o.id === id)
          const option = options[i]
          if (!option) return null
          return (
            <li
              key={id}
              data-drag
              data-drop={id}
              className={`relative flex items-center gap-[0.6em] overflow-hidden rounded-[0.5em] border-2 px-[0.7em] py-[0.4em] ${drag.dragged === id ? 'border-dusk bg-dusk-soft' : 'border-edge bg-paper'}`}
            >
              {onRank && open && <Grip {...drag.handle(id)} />}
              {onRank && <b className="relative w-[1.2em] tabular-nums">{at + 1}.</b>}
              <OptionPicture option={option} />
              <span dir="auto" className="relative min-w-0 grow break-words">
                {option.text}
              </span>
              {onRank && open && (
                <span className="relative flex gap-[0.3em]">
                  <button
                    type="button"
                    data-by="-1"
                    className={button}
                    disabled={at === 0}
                    aria-label={t('poll.up', { text: option.text })}
                    onClick={() => move(at, -1)}
                  >
                    <ArrowUp size="1.1em" aria-hidden="true" />
                  </button>
                  <button
                    type="button"
                    data-by="1"
                    className={button}
                    disabled={at === given.length - 1}
                    aria-label={t('poll.down', { text: option.text })}
                    onClick={() => move(at, 1)}
                  >
                    <ArrowDown size="1.1em" aria-hidden="true" />
                  </button>
                </span>
              )}
            </li>
          )
        })}
      </ol>
      {onRank && open && (
        <button
          type="button"
          className={give}
          disabled={chosen !== undefined && given.join() === chosen.join()}
          onClick={() => onRank(given)}
        >
          {t('poll.give')}
        </button>
      )}
    </div>
  )
}
