import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Staff } from '../../wire/lesson'
import { useUntil } from '../../wire/hooks/useClock'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

const MINUTES = [2, 5]

/** Who works on the class's frame, seen by all; for how long, and back to their seat. Nothing while nobody does. */
export function AtBoard({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const { atBoard } = staff.state
  const name = useLessonState((s) => s.people.get(atBoard?.student ?? '')?.name)
  const ends = useUntil(atBoard?.until)
  return (
    <div role="status" className="empty:hidden" data-part="at-board">
      {atBoard && name && !ends?.over && (
        <div className="mx-3 mt-2 flex flex-wrap items-center gap-2 rounded-xl border border-dusk bg-dusk-soft px-3 py-1.5">
          <b className="grow font-semibold text-dusk">{t('atBoard.is', { name })}</b>
          {MINUTES.map((m) => (
            <Button
              key={m}
              look="quiet"
              onClick={() => void lesson.give({ kind: 'board', board: { student: atBoard.student, seconds: m * 60 } })}
            >
              {t('atBoard.for', { count: m })}
            </Button>
          ))}
          <Button look="main" onClick={() => void lesson.give({ kind: 'board', board: {} })}>
            {t('atBoard.back')}
          </Button>
        </div>
      )}
    </div>
  )
}
