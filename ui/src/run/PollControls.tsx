import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import type { Staff } from '../wire/lesson'
import type { Frame, Phase } from '../wire/types.gen'
import { useLessonState } from '../wire/useLesson'
import { useStaffLesson } from '../wire/useStaff'
import { answerCounts } from './answers'

/** Closes a poll, opens it again, and shows the right answer. */
export function PollControls({ frame, staff }: { frame: Frame; staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const sheets = useLessonState((s) => s.sheets)
  const all = useLessonState((s) => s.people.size)
  const counts = answerCounts(sheets, frame.id)
  return frame.prepared.map((mark) => {
    // A poll on a frame that no student can be on yet has no phase.
    const phase = staff.state.polls[mark.id]
    if (mark.kind !== 'poll' || !phase) return null
    const count = Object.values(counts(mark.id)).reduce((sum, n) => sum + n, 0)
    const put = (next: Phase) => () => void lesson.give({ kind: 'poll', poll: { poll: mark.id, phase: next } })
    return (
      <div key={mark.id} className="flex flex-wrap items-center gap-2">
        <span className="font-semibold">{t('poll.answered', { count, all })}</span>
        {phase === 'open' && <Button onClick={put('closed')}>{t('poll.close')}</Button>}
        {phase === 'closed' && <Button onClick={put('open')}>{t('poll.open')}</Button>}
        {phase !== 'revealed' && mark.poll.choices.some((c) => c.right) && (
          <Button onClick={put('revealed')}>{t('poll.reveal')}</Button>
        )}
        {phase === 'revealed' && <span className="text-fern-deep">{t('poll.revealed')}</span>}
      </div>
    )
  })
}
