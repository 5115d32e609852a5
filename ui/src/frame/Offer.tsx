import { Check, X } from 'lucide-react'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useHand, useHandState } from './hand'

const SHOWN_MS = 9000

/** Offers to turn the line just drawn into the clean shape that it seems to mean. */
export function Offer() {
  const { t } = useTranslation()
  const hand = useHand()
  const offer = useHandState((s) => s.offer)
  useEffect(() => {
    if (!offer) return
    const timer = setTimeout(() => hand.set({ offer: null }), SHOWN_MS)
    return () => clearTimeout(timer)
  }, [offer, hand])
  const clean = offer?.tidied.clean
  const form = !clean
    ? ''
    : clean.kind === 'shape'
      ? nameOf(clean.shape.form, clean.w, clean.h)
      : clean.kind === 'connector' && clean.connector.heads
        ? 'arrow'
        : 'line'
  return (
    <div role="status" className="pointer-events-none absolute inset-x-0 bottom-3 z-10 flex justify-center">
      {offer && clean && (
        <p className="pointer-events-auto flex items-center gap-1 rounded-full border border-edge bg-paper p-1 ps-4 text-sm shadow-md">
          {t('offer.ask', { form: t(`offer.${form}`) })}
          <button
            type="button"
            className="ms-2 inline-flex min-h-9 items-center gap-1 rounded-full bg-dusk px-3 font-semibold text-paper"
            onClick={() => hand.take(offer.mark, clean)}
          >
            <Check size={16} aria-hidden="true" />
            {t('offer.yes')}
          </button>
          <button
            type="button"
            aria-label={t('offer.no')}
            title={t('offer.no')}
            className="grid size-9 place-items-center rounded-full text-slate hover:bg-mist"
            onClick={() => hand.set({ offer: null })}
          >
            <X size={16} aria-hidden="true" />
          </button>
        </p>
      )}
    </div>
  )
}

const nameOf = (form: string, w: number, h: number) =>
  w === h && form === 'rect' ? 'square' : w === h && form === 'ellipse' ? 'circle' : form
