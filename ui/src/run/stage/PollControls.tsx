import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Staff } from '../../wire/lesson'
import type { Frame, Phase } from '../../wire/types.gen'
import { RowSteps } from '../asking/InRow'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Closes a poll, opens it again, shows the right answer, and asks once more. */
export function PollControls({ frame, staff }: { frame: Frame; staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const outcomes = useLessonState((s) => s.outcomes)
  if (frame.set) return <RowSteps frame={frame} staff={staff} />
  return frame.prepared.map((mark) => {
    // A poll on a frame that no student can be on yet has no phase.
    const now = staff.state.polls[mark.id]
    if (mark.kind !== 'poll' || !now) return null
    const { phase, round } = now
    const outcome = outcomes.get(mark.id)
    const put = (next: Phase) => () => void lesson.give({ kind: 'poll', poll: { poll: mark.id, phase: next } })
    return (
      <div key={mark.id} className="flex flex-wrap items-center gap-2">
        {round > 1 && <span className="rounded-md bg-mist px-2 py-0.5">{t('poll.round', { round })}</span>}
        <span className="font-semibold">
          {t('poll.answered', { count: outcome?.answered ?? 0, all: outcome?.of ?? 0 })}
        </span>
        {phase === 'open' && <Button onClick={put('closed')}>{t('poll.close')}</Button>}
        {phase === 'closed' && <Button onClick={put('open')}>{t('poll.open')}</Button>}
        {phase !== 'revealed' && outcome?.verdicts && <Button onClick={put('revealed')}>{t('poll.reveal')}</Button>}
        {phase === 'revealed' && <span className="text-fern-deep">{t('poll.revealed')}</span>}
        {phase !== 'open' && (
          <Button onClick={() => void lesson.give({ kind: 'ask', ask: { poll: mark.id } })}>
            {t('poll.askAgain')}
          </Button>
        )}
      </div>
    )
  })
}
