import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { SessionName } from '../kit/SessionName'
import type { Found } from '../wire/types.gen'
import { when } from '../words/words'

/** Lessons, and words of students in them, that a search has found; each leads there. */
export function FoundSaid({ found }: { found: Found }) {
  const { t } = useTranslation()
  if (found.said.length + found.lessons.length === 0) return null
  return (
    <section aria-labelledby="found" className="mt-6" data-part="found">
      <h2 id="found" className="mb-2 text-xl">
        {t('boards.foundIn')}
      </h2>
      <ul className="divide-y divide-line overflow-hidden rounded-xl border border-line bg-paper">
        {found.lessons.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-3 px-4 py-2.5">
            <SessionName session={s} />
            <Link to={`/records/${s.id}`} className="ms-auto font-semibold text-dusk underline underline-offset-4">
              {t('boards.toRecord')}
            </Link>
          </li>
        ))}
        {found.said.map((s, i) => (
          <li key={i} className="flex flex-wrap items-baseline gap-x-3 px-4 py-2.5">
            <Link
              to={`/records/${s.session}#${s.author}.${s.frame}`}
              dir="auto"
              className="min-w-0 font-semibold break-words text-dusk underline underline-offset-4"
            >
              {s.words}
            </Link>
            <span className="text-sm text-slate">
              {[s.name, s.lesson, s.class, when(s.at)].filter(Boolean).join(' · ')}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
