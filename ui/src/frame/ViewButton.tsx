import { X } from 'lucide-react'
import { Suspense, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../kit/part'
import type { Element } from '../wire/types.gen'
import { ViewSign, viewButton, type Window } from './viewSign'

const KEY = 'toured'
const toured = () => {
  try {
    return localStorage.getItem(KEY) !== null
  } catch {
    return true
  }
}

/** Offers the way around the screen to who is here for the first time. */
export function TourOffer({ onOpen }: { onOpen: (what: Window) => void }) {
  const { t } = useTranslation()
  const [offered, setOffered] = useState(() => !toured())
  if (!offered) return null
  const done = (opens: boolean) => {
    try {
      localStorage.setItem(KEY, 'yes')
    } catch {
      // Then it is offered again the next time.
    }
    setOffered(false)
    if (opens) onOpen('tour')
  }
  return (
    <p className="ms-auto flex shrink-0 turned:hidden items-center rounded-full border border-line bg-paper text-[13px]">
      <button
        type="button"
        className="rounded-full py-1.5 ps-3.5 pe-1 font-semibold text-dusk hover:underline"
        onClick={() => done(true)}
      >
        {t('view.firstTime')}
      </button>
      <button
        type="button"
        aria-label={t('view.notNow')}
        title={t('view.notNow')}
        className="grid size-8 place-items-center rounded-full text-slate hover:bg-mist"
        onClick={() => done(false)}
      >
        <X size={15} aria-hidden="true" />
      </button>
    </p>
  )
}

const ViewMenu = part(() => import('./ViewMenu'))

/** The button of the view menu; the menu itself is fetched when it is wanted. */
export function ViewButton(props: { marks: readonly Element[]; onOpen: (what: Window) => void }) {
  const { t } = useTranslation()
  const [wanted, setWanted] = useState(false)
  const button = (
    <button type="button" aria-haspopup="menu" className={viewButton(false)} onClick={() => setWanted(true)}>
      <ViewSign word={t('view.menu')} />
    </button>
  )
  return wanted ? (
    <Suspense fallback={button}>
      <ViewMenu {...props} />
    </Suspense>
  ) : (
    button
  )
}
