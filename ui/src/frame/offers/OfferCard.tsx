import { Check, X } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Tidier } from '../../wire/types.gen'
import '../../words/windows'

type Props = { clean: Tidier; onTake: () => void; onLeave: () => void }

/** The question whether a line becomes the clean shape that it seems to mean. */
export default function OfferCard({ clean, onTake, onLeave }: Props) {
  const { t } = useTranslation()
  const form =
    clean.kind === 'shape'
      ? nameOf(clean.shape.form, clean.w, clean.h)
      : clean.kind === 'connector' && clean.connector.heads
        ? 'arrow'
        : 'line'
  return (
    <p className="pointer-events-auto flex items-center gap-1 rounded-full border border-edge bg-paper p-1 ps-4 text-sm shadow-md">
      {t('offer.ask', { form: t(`offer.${form}`) })}
      <button
        type="button"
        className="ms-2 inline-flex min-h-9 items-center gap-1 rounded-full bg-dusk px-3 font-semibold text-paper"
        onClick={onTake}
      >
        <Check size={16} aria-hidden="true" />
        {t('offer.yes')}
      </button>
      <button
        type="button"
        aria-label={t('offer.no')}
        title={t('offer.no')}
        className="grid size-9 place-items-center rounded-full text-slate hover:bg-mist"
        onClick={onLeave}
      >
        <X size={16} aria-hidden="true" />
      </button>
    </p>
  )
}

const nameOf = (form: string, w: number, h: number) =>
  w === h && form === 'rect' ? 'square' : w === h && form === 'ellipse' ? 'circle' : form
