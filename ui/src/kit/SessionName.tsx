import { useTranslation } from 'react-i18next'
import type { SessionItem } from '../wire/types.gen'
import { when } from '../words/words'

/** What a lesson is called in a list: its board, class, time, and how many were there. */
export function SessionName({ session }: { session: SessionItem }) {
  const { t } = useTranslation()
  return (
    <span>
      {session.practice && (
        <span className="me-2 rounded-md bg-amber-soft px-1.5 py-0.5 text-sm font-semibold text-amber">
          {t('boards.practice')}
        </span>
      )}
      <b className="font-semibold">{session.className ? t('boards.with', session) : session.title}</b>
      <span className="text-slate">
        {' · '}
        {when(session.startedAt)} · {t('boards.students', { count: session.students })}
        {session.by && ` · ${t('boards.by', { name: session.by })}`}
        {session.goesAt && (
          <span className="font-semibold text-amber"> · {t('boards.goes', { when: when(session.goesAt) })}</span>
        )}
      </span>
    </span>
  )
}
