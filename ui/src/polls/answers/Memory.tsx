import { Check } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { MemoryAsked, MemoryGiven, Option } from '../../wire/types.gen'
import { shuffled } from '../kinds'
import { OptionPicture } from './OptionPicture'
import type { AnswerProps } from './props'

const none: MemoryGiven = { found: [], turns: 0 }

/** Cards face down, of which two and two belong together; those that were turned stay until the next is. */
export function Memory({ asked, given, open, revealed, onGive, seed }: AnswerProps<'memory'>) {
  const { t } = useTranslation()
  const { pairs } = asked.memory
  const [up, setUp] = useState<string[]>([])
  const [mine, setMine] = useState(none)
  const [said, say] = useState('')
  const kept = given?.memory ?? none
  // Turns that found nothing are given with the next pair that is found.
  const now = mine.turns > kept.turns ? mine : kept
  const pairOf = (card: string) => pairs.find((p) => p.one.id === card || p.other.id === card)!
  const cards = shuffled(
    pairs.flatMap((p) => [p.one, p.other]),
    seed || 'cards',
  )
  if (revealed) return <Together pairs={pairs} found={now.found} />

  function turn(card: Option) {
    const first = up.length === 1 ? up[0]! : null
    if (!onGive || !open || now.found.includes(pairOf(card.id).one.id) || card.id === first) return
    if (first === null) {
      setUp([card.id])
      say('')
      return
    }
    const pair = pairOf(card.id)
    const fits = pairOf(first) === pair
    const next = { found: fits ? [...now.found, pair.one.id] : now.found, turns: now.turns + 1 }
    setMine(next)
    setUp(fits ? [] : [first, card.id])
    if (fits) onGive({ kind: 'memory', memory: next })
    if (next.found.length === pairs.length) say(t('poll.cardsAll', { count: next.turns }))
    else say(fits ? t('poll.cardsFit', { one: pair.one.text, other: pair.other.text }) : t('poll.cardsDiffer'))
  }

  return (
    <div className="flex flex-col gap-[0.6em]">
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(5.4em,1fr))] gap-[0.5em]">
        {cards.map((card, i) => {
          const found = now.found.includes(pairOf(card.id).one.id)
          const shown = found || up.includes(card.id)
          const name = { n: i + 1, text: card.text }
          const look = found ? 'border-fern bg-fern-soft' : shown ? 'border-dusk bg-paper' : 'border-dusk bg-dusk-soft'
          return (
            <li key={card.id} className="flex">
              <button
                type="button"
                disabled={!onGive}
                aria-disabled={!open || found}
                aria-label={t(found ? 'poll.cardFound' : shown ? 'poll.cardUp' : 'poll.cardDown', name)}
                onClick={() => turn(card)}
                className={`relative flex min-h-[5.2em] w-full flex-col items-center justify-center gap-[0.2em] rounded-[0.6em] border-2 p-[0.35em] text-[0.9em] leading-tight ${look} ${open && !shown ? 'cursor-pointer hover:border-night' : 'cursor-default'}`}
              >
                {shown ? (
                  <>
                    <OptionPicture option={card} />
                    <span dir="auto" className="max-w-full hyphens-auto break-words">
                      {card.text}
                    </span>
                    {found && <Check size="1.1em" aria-hidden="true" className="text-fern-deep" />}
                  </>
                ) : (
                  <span className="font-display text-[1.4em] text-dusk tabular-nums">{i + 1}</span>
                )}
              </button>
            </li>
          )
        })}
      </ul>
      {onGive && (
        <>
          <p role="status" className="min-h-[1.5em] font-semibold text-balance">
            {said}
          </p>
          <p className="text-[0.9em] text-slate tabular-nums">
            {t('poll.cardsSoFar', { found: now.found.length, of: pairs.length, count: now.turns })}
          </p>
        </>
      )}
    </div>
  )
}

/** What belongs together, with those that were found. */
function Together({ pairs, found }: { pairs: MemoryAsked['pairs']; found: string[] }) {
  const { t } = useTranslation()
  return (
    <ul className="grid gap-[0.4em] sm:grid-cols-2">
      {pairs.map(({ one, other }) => (
        <li
          key={one.id}
          className="flex flex-wrap items-center gap-x-[0.5em] rounded-[0.5em] border-2 border-edge bg-paper px-[0.6em] py-[0.35em]"
        >
          <OptionPicture option={one} />
          <b dir="auto">{one.text}</b>
          <span aria-hidden="true">·</span>
          <OptionPicture option={other} />
          <span dir="auto">{other.text}</span>
          {found.includes(one.id) && (
            <Check size="1.1em" aria-label={t('poll.foundIt')} className="ms-auto text-fern-deep" />
          )}
        </li>
      ))}
    </ul>
  )
}
