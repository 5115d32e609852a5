import { useTranslation } from 'react-i18next'
import { PollCard } from '../polls/PollCard'
import { answersIn } from '../rules/answers'
import type { Shown } from '../wire/sheets'
import type { Element, PollState } from '../wire/types.gen'
import { useUntil } from '../wire/hooks/useClock'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'
import { useVerdict } from '../wire/hooks/useVerdict'

type Props = {
  mark: Element & { kind: 'poll' }
  state: PollState
  /** The student's own sheet of the frame, which takes the answer. */
  own: Shown | undefined
  me: string
  onFrame: boolean
}

/** With whom to talk about it. */
function Talk({ ids }: { ids: string[] }) {
  const { t, i18n } = useTranslation()
  const people = useLessonState((s) => s.people)
  const names = ids.flatMap((id) => people.get(id)?.name ?? [])
  return (
    <p role="status" className="mb-[0.6em] rounded-[0.4em] bg-dusk-soft px-[0.7em] py-[0.4em] font-semibold">
      {names.length > 0
        ? t('student.talk', { names: new Intl.ListFormat(i18n.language).format(names) })
        : t('student.talkAlone')}
    </p>
  )
}

/** A question as a student has it. */
export default function StudentPoll({ mark, state, own, me, onFrame }: Props) {
  const lesson = useLesson()
  const online = useLessonState((s) => s.network === 'online')
  const left = useUntil(state.closesAt)
  const { round } = state
  // Its time is over before anybody has closed it.
  const phase = state.phase === 'open' && left?.over ? 'closed' : state.phase
  const talk = useLessonState((s) => s.student?.stage.talk)
  const verdict = useVerdict(own?.sheet, mark.id, round, phase)
  return (
    <PollCard
      mark={mark}
      phase={phase}
      round={round}
      left={phase === 'open' ? left?.seconds : undefined}
      given={answersIn(own?.marks ?? [], mark.id, round)[0]}
      onFrame={onFrame}
      ready={own !== undefined}
      verdict={verdict}
      note={talk?.poll === mark.id && <Talk ids={talk.with} />}
      seed={me}
      onGive={(value, sure) =>
        own &&
        lesson.do(own.sheet, {
          kind: 'answer',
          answer: { poll: mark.id, round, value, ...(sure && { sure }), ...(!online && { offline: true }) },
        })
      }
    />
  )
}
