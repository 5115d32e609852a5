import { useTranslation } from 'react-i18next'
import type { Element } from '../../wire/types.gen'
import { useHand } from '../hand/useHand'
import { textOf } from '../paint/geometry'
import '../../words/windows'

/** How many notes are shown beside a frame; all of them stand in its list. */
const MOST = 40

/** Notes for which there was no room on the frame, the newest first. */
export default function Margin({ notes }: { notes: readonly Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const shown = [...notes].sort((a, b) => b.at - a.at).slice(0, MOST)
  const mine = notes.some((m) => m.author === hand.ground.me)
  return (
    <section
      aria-label={t('margin.title', { count: notes.length })}
      data-part="margin"
      className="flex shrink-0 flex-col gap-2 overflow-auto border-line bg-mist p-2 max-sm:max-h-40 max-sm:border-t sm:w-44 sm:border-s"
    >
      <h3 className="text-sm font-semibold">{t('margin.title', { count: notes.length })}</h3>
      <p role="status" className="text-sm text-slate empty:hidden">
        {mine && hand.ground.me !== 'staff' ? t('margin.yours') : ''}
      </p>
      <ul className="flex flex-col gap-2">
        {shown.map((m) => (
          <li key={m.id} className="rounded-lg border border-edge bg-paper p-2">
            <p className="truncate text-sm font-semibold text-slate">{hand.nameOf(m.author)}</p>
            <p dir="auto" className="line-clamp-4 break-words whitespace-pre-wrap">
              {textOf(m)}
            </p>
            {hand.mayChange(m) && (
              <button
                type="button"
                className="mt-1 min-h-11 rounded-lg px-1 text-sm font-semibold text-dusk underline hover:bg-mist sm:min-h-8"
                onClick={() => hand.putOn(m)}
              >
                {t('margin.putOn')}
              </button>
            )}
          </li>
        ))}
      </ul>
      {notes.length > shown.length && (
        <p className="text-sm text-slate">{t('margin.more', { count: notes.length - shown.length })}</p>
      )}
    </section>
  )
}
