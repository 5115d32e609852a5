import { ChevronDown, ChevronsUp } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useHand, useHandState } from './hand/useHand'
import { HEAD, type Head } from './paint/columns'
import '../words/windows'

/** The headings of columns, and below each what leads to the notes for which there is no room. */
export default function Heads({ heads }: { heads: readonly Head[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const from = useHandState((s) => s.from)
  return heads.map((c) => {
    const first = from[c.id] ?? 0
    const more = c.beyond - first
    const title = c.title || t('columns.untitled', { n: heads.indexOf(c) + 1 })
    return (
      <section
        key={c.id}
        aria-label={title}
        data-part="column"
        className="pointer-events-none absolute text-on-ground"
        style={{ left: c.x, top: c.y, width: c.w, height: c.h }}
      >
        <div
          className="border-b-3 border-edge"
          style={{ fontSize: HEAD.size, height: HEAD.rule, lineHeight: `${HEAD.rule}px` }}
        >
          {c.title && (
            <h3 dir="auto" className="truncate font-semibold">
              {c.title}
            </h3>
          )}
        </div>
        {c.prompt && (
          <p dir="auto" className="line-clamp-2 pt-1 leading-[1.2]" style={{ fontSize: HEAD.prompt }}>
            {c.prompt}
          </p>
        )}
        {c.beyond > 0 && (
          <button
            type="button"
            data-own-hand
            aria-label={more > 0 ? t('columns.moreIn', { count: more, title }) : t('columns.firstIn', { title })}
            className="pointer-events-auto absolute inset-x-0 -bottom-2 flex items-center justify-center gap-2 rounded-[10px] border-2 border-edge bg-paper font-semibold text-dusk hover:bg-dusk-soft"
            style={{ fontSize: 24, height: 40 }}
            onClick={() => hand.set({ from: { ...from, [c.id]: more > 0 ? first + c.on : 0 } })}
          >
            {more > 0 ? <ChevronDown aria-hidden="true" size={26} /> : <ChevronsUp aria-hidden="true" size={26} />}
            {more > 0 ? t('columns.more', { count: more }) : t('columns.first')}
          </button>
        )}
      </section>
    )
  })
}
