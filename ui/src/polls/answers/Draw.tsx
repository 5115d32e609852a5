import { Check } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { give, type AnswerProps } from './props'

/** The frame is the answer: one says when it is done. */
export function Draw({ given, open, onGive }: AnswerProps<'draw'>) {
  const { t } = useTranslation()
  if (given)
    return (
      <p className="flex items-center gap-[0.4em] font-semibold text-fern-deep">
        <Check size="1.2em" aria-hidden="true" />
        {t('poll.drawn')}
      </p>
    )
  return (
    <>
      <p className="text-slate">{t('poll.draw')}</p>
      {open && onGive && (
        <button
          type="button"
          className={`${give} mt-[0.6em]`}
          onClick={() => onGive({ kind: 'draw', draw: { done: true } })}
        >
          {t('poll.drawDone')}
        </button>
      )}
    </>
  )
}
