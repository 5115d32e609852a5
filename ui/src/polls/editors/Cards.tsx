import { ImagePlus } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import { Button } from '../../kit/Button'
import type { CardPair } from '../../wire/types.gen'
import { option } from '../kinds'
import { field, type FieldsProps } from './props'
import { Rows } from './Rows'

/** The cards of a game, pair by pair, as text or picture. */
export function MemoryFields({ asked, onAsked, pick }: FieldsProps<'memory'>) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-col gap-2">
      <Rows<CardPair>
        legend={t('question.cards')}
        rows={asked.memory.pairs}
        keyOf={(p) => p.one.id}
        onRows={(pairs) => onAsked({ kind: 'memory', memory: { pairs } })}
        fresh={() => ({ one: option(), other: option() })}
        least={2}
        most={12}
        add={t('question.addPair')}
        drop={(n) => t('question.dropPair', { n })}
      >
        {(pair, at, put) =>
          (['one', 'other'] as const).map((side) => {
            const card = pair[side]
            const to = (part: Partial<typeof card>) => put({ [side]: { ...card, ...part } })
            return (
              <span key={side} className="flex grow basis-40 items-center gap-1">
                {card.picture && (
                  <img src={pictureURL(card.picture)} alt="" className="h-10 w-12 rounded object-cover" />
                )}
                <input
                  aria-label={t(`question.card_${side}`, { n: at + 1 })}
                  value={card.text}
                  maxLength={300}
                  dir="auto"
                  placeholder={card.picture ? t('question.answerAlt') : undefined}
                  onChange={(e) => to({ text: e.target.value })}
                  className={`${field} w-0 grow`}
                />
                {pick && (
                  <Button
                    look="quiet"
                    aria-label={t(card.picture ? 'question.cardBare' : 'question.cardPicture', {
                      card: t(`question.card_${side}`, { n: at + 1 }),
                    })}
                    onClick={() =>
                      card.picture
                        ? to({ picture: undefined })
                        : pick(({ id, name }) => to({ picture: id, text: card.text || name }))
                    }
                  >
                    <ImagePlus size={17} aria-hidden="true" />
                  </Button>
                )}
              </span>
            )
          })
        }
      </Rows>
      <p className="text-sm text-slate">{t('question.cardsText')}</p>
    </div>
  )
}
