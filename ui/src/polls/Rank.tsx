import { ArrowDown, ArrowUp } from 'lucide-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { OptionPicture } from './OptionPicture'
import type { Option } from '../wire/types.gen'

type Props = {
  options: Option[]
  /** The order that was given, by the options' ids. */
  chosen?: string[]
  open: boolean
  /** How many points each option has, in the order of the question. */
  points?: number[]
  /** Left out where nobody can answer. */
  onRank?: (order: string[]) => void
}

/** Things that are put in order, the one that is liked best on top. */
export function Rank({ options, chosen, open, points, onRank }: Props) {
  const { t } = useTranslation()
  const [begun, setBegun] = useState<string[] | null>(null)
  const list = useRef<HTMLOListElement>(null)
  const given = onRank ? (begun ?? chosen ?? options.map((o) => o.id)) : options.map((o) => o.id)
  const most = Math.max(1, ...(points ?? []))
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
  return (
    <div className="flex flex-col gap-[0.6em]">
      <ol ref={list} className="flex flex-col gap-[0.45em]">
        {given.map((id, at) => {
          const i = options.findIndex((o) => o.id === id)
          const option = options[i]
          if (!option) return null
          const count = points?.[i] ?? 0
          return (
            <li
              key={id}
              className="relative flex items-center gap-[0.6em] overflow-hidden rounded-[0.5em] border-2 border-edge bg-paper px-[0.7em] py-[0.4em]"
            >
              {points && (
                <span
                  aria-hidden="true"
                  className="absolute inset-y-0 start-0 bg-mist"
                  style={{ width: `${(100 * count) / most}%` }}
                />
              )}
              {onRank && <b className="relative w-[1.2em] tabular-nums">{at + 1}.</b>}
              <OptionPicture option={option} />
              <span dir="auto" className="relative min-w-0 grow break-words">
                {option.text}
              </span>
              {points && (
                <span className="relative text-[0.85em] font-semibold tabular-nums">{t('poll.points', { count })}</span>
              )}
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
          className="self-start rounded-[0.5em] bg-dusk px-[1em] py-[0.5em] font-semibold text-paper disabled:bg-slate"
          disabled={chosen !== undefined && given.join() === chosen.join()}
          onClick={() => onRank(given)}
        >
          {t('poll.give')}
        </button>
      )}
    </div>
  )
}
