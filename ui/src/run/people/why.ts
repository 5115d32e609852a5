import type { TFunction } from 'i18next'
import type { NextRow } from '../../wire/types.gen'
import { ago } from '../../words/words'

const MINUTE_MS = 60_000

/** Why a student may need the teacher, in words; empty where there is nothing to say. */
export function whyInWords(t: TFunction, row: NextRow, now: number): string {
  const since = row.since ?? 0
  const when = since ? (ago(since, now) ?? t('run.lastNow')) : ''
  switch (row.why) {
    case 'none':
      return row.state === 'gone' ? t('next.keeps') : ''
    case 'quiet':
      return t('next.quiet', { minutes: Math.max(1, Math.floor((now - since) / MINUTE_MS)) })
    case 'behind':
      return t('next.behind', { count: row.n ?? 0 })
    case 'same':
      return t('next.same', { count: row.n ?? 0 })
    default:
      return t(`next.${row.why}`, { when })
  }
}
