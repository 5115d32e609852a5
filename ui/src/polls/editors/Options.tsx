import { ImagePlus } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import { Button } from '../../kit/Button'
import type { Option } from '../../wire/types.gen'
import { option } from '../kinds'
import { MistakeName } from './MistakeName'
import { OrderMistakes } from './Mistakes'
import { field, type FieldsProps, type PickPicture } from './props'
import { Rows } from './Rows'

type Props = {
  options: Option[]
  onOptions: (to: Option[]) => void
  most: number
  pick?: PickPicture
  /** Right ones are marked, and mistakes named. */
  judged?: boolean
  legend?: string
  least?: number
}

/** Things that a question offers, as text or picture. */
export function OptionRows({ options, onOptions, most, pick, judged = false, legend, least = 2 }: Props) {
  const { t } = useTranslation()
  const [names, setNames] = useState(options.some((o) => o.mistake))
  const right = options.filter((o) => o.right).length
  return (
    <>
      <Rows
        legend={legend ?? t('question.answers')}
        rows={options}
        keyOf={(o) => o.id}
        onRows={onOptions}
        fresh={() => option()}
        least={least}
        most={most}
        add={t('question.addAnswer')}
        drop={(n) => t('question.dropAnswer', { n })}
      >
        {(o, at, put) => (
          <>
            {judged && (
              <label className="flex shrink-0 items-center gap-1.5 text-sm" title={t('question.markRight')}>
                <input
                  type="checkbox"
                  className="size-5 accent-fern"
                  checked={o.right ?? false}
                  onChange={(e) => put({ right: e.target.checked, mistake: undefined })}
                  aria-label={t('question.isRight', { n: at + 1 })}
                />
              </label>
            )}
            {o.picture && <img src={pictureURL(o.picture)} alt="" className="h-10 w-14 rounded object-cover" />}
            <input
              aria-label={t('question.answer', { n: at + 1 })}
              value={o.text}
              maxLength={300}
              dir="auto"
              placeholder={o.picture ? t('question.answerAlt') : t('question.answer', { n: at + 1 })}
              onChange={(e) => put({ text: e.target.value })}
              className={`${field} grow`}
            />
            {names && judged && !o.right && (
              <MistakeName
                n={at + 1}
                name={o.mistake}
                onName={(to) => put({ mistake: to || undefined })}
                className="w-48"
              />
            )}
            {pick && (
              <Button
                look="quiet"
                aria-label={t(o.picture ? 'question.noPicture' : 'question.withPicture', { n: at + 1 })}
                onClick={() =>
                  o.picture
                    ? put({ picture: undefined })
                    : pick(({ id, name }) => put({ picture: id, text: o.text || name }))
                }
              >
                <ImagePlus size={17} aria-hidden="true" />
              </Button>
            )}
          </>
        )}
      </Rows>
      {judged && (
        <>
          <p className="text-sm text-slate" role="status">
            {right === 0 ? t('question.noRight') : t('question.someRight', { count: right })}
          </p>
          {right > 0 && (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-dusk"
                checked={names}
                onChange={(e) => {
                  setNames(e.target.checked)
                  if (!e.target.checked) onOptions(options.map((o) => ({ ...o, mistake: undefined })))
                }}
              />
              {t('question.nameMistakes')}
            </label>
          )}
        </>
      )}
    </>
  )
}

export const ChoiceFields = ({ asked, onAsked, pick }: FieldsProps<'choice'>) => (
  <OptionRows
    judged
    most={12}
    pick={pick}
    options={asked.choice.options}
    onOptions={(options) => onAsked({ kind: 'choice', choice: { options } })}
  />
)

export const SeveralFields = ({ asked, onAsked, pick }: FieldsProps<'several'>) => (
  <OptionRows
    judged
    most={12}
    pick={pick}
    options={asked.several.options}
    onOptions={(options) => onAsked({ kind: 'several', several: { options } })}
  />
)

export function OrderFields({ asked, onAsked, pick }: FieldsProps<'order'>) {
  const { t } = useTranslation()
  return (
    <>
      <OptionRows
        legend={t('question.inOrder')}
        most={8}
        pick={pick}
        options={asked.order.options}
        onOptions={(options) => onAsked({ kind: 'order', order: { ...asked.order, options } })}
      />
      <p className="text-sm text-slate">{t('question.orderRight')}</p>
      <OrderMistakes
        options={asked.order.options}
        mistakes={asked.order.mistakes}
        onMistakes={(mistakes) => onAsked({ kind: 'order', order: { ...asked.order, mistakes } })}
      />
    </>
  )
}

export function RankFields({ asked, onAsked, pick }: FieldsProps<'rank'>) {
  const { t } = useTranslation()
  return (
    <>
      <OptionRows
        legend={t('question.inOrder')}
        most={8}
        pick={pick}
        options={asked.rank.options}
        onOptions={(options) => onAsked({ kind: 'rank', rank: { options } })}
      />
      <p className="text-sm text-slate">{t('question.ranked')}</p>
    </>
  )
}
