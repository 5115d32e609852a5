import { LayoutGrid } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Element } from '../../wire/types.gen'
import { useLesson } from '../../wire/hooks/useLesson'
import { isRemoved } from '../../rules/standing'

/** Lays the notes of a sheet anew, so that none covers another; one undo puts them back. */
export function Spread({ sheet, marks }: { sheet: string; marks: readonly Element[] }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  if (marks.filter((m) => m.kind === 'note' && !m.group && !isRemoved(m)).length < 2) return null
  return (
    <button
      type="button"
      title={t('spread.hint')}
      className="inline-flex h-9 items-center gap-1.5 rounded-lg px-2.5 text-[13px] font-semibold text-slate hover:bg-mist hover:text-night"
      onClick={() => lesson.do(sheet, { kind: 'spread', spread: {} })}
    >
      <LayoutGrid size={17} aria-hidden="true" />
      {t('spread.open')}
    </button>
  )
}
