import { Eye } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Staff } from '../../wire/lesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Says that the teacher looks at another frame than the class is on, and leads back. */
export function Elsewhere({ staff, sees }: { staff: Staff; sees: string | null }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const n = (frame: string) => staff.board.frames.findIndex((f) => f.id === frame) + 1
  return (
    <div role="status" className="empty:hidden">
      {sees && (
        <div className="mx-3 mt-2 flex flex-wrap items-center gap-2 rounded-lg bg-dusk-soft px-3 py-1.5">
          <Eye size={17} aria-hidden="true" className="text-dusk" />
          <span className="grow font-semibold text-dusk">
            {t('elsewhere.is', { n: n(sees), at: n(staff.state.frame) })}
          </span>
          <Button onClick={() => lesson.lookAt(null)}>{t('elsewhere.back')}</Button>
        </div>
      )}
    </div>
  )
}
