import { Suspense, useEffect } from 'react'
import { part } from '../../kit/part'
import { useHand, useHandState } from '../hand/useHand'

const OfferCard = part(() => import('./OfferCard'))

const SHOWN_MS = 9000

/** Offers for a while to turn the line just drawn into the clean shape that it seems to mean. */
export function Offer() {
  const hand = useHand()
  const offer = useHandState((s) => s.offer)
  useEffect(() => {
    if (!offer) return
    const timer = setTimeout(() => hand.set({ offer: null }), SHOWN_MS)
    return () => clearTimeout(timer)
  }, [offer, hand])
  const clean = offer?.tidied.clean
  return (
    <div role="status" className="pointer-events-none absolute inset-x-0 bottom-3 z-10 flex justify-center">
      <Suspense fallback={null}>
        {offer && clean && (
          <OfferCard
            clean={clean}
            onTake={() => hand.take(offer.mark, clean)}
            onLeave={() => hand.set({ offer: null })}
          />
        )}
      </Suspense>
    </div>
  )
}
