import { Tabs } from 'radix-ui'
import { useCallback, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { PollCard } from '../../polls/PollCard'
import { Workplace } from '../../frame/Workplace'
import type { Staff } from '../../wire/lesson'
import type { Element, Frame, Front, PollState } from '../../wire/types.gen'
import { useCalmState } from '../../wire/hooks/useCalm'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useHearingOutcomes } from '../../wire/hooks/useOutcomes'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { Answers } from '../asking/Answers'
import { AlikeButton } from '../alike/AlikeButton'
import { AskAbout } from '../alike/AskAbout'
import { AtBoard } from './AtBoard'
import { ClearMenu } from './ClearMenu'
import { Spread } from './Spread'
import { StackButton } from './StackButton'
import { Cover } from './Covers'
import { Elsewhere } from './Elsewhere'
import type { Gallery } from '../gallery/stops'
import { GroupsButton } from './GroupsButton'
import { HistoryButton } from '../history/HistoryButton'
import { IntoColumns } from './IntoColumns'
import { LessonLine } from '../../line/LessonLine'
import { LessonNotes } from './LessonNotes'
import { Moderate } from './Moderate'
import { Monitor } from '../monitor/Monitor'
import { Overview } from '../overview/Overview'
import { PollControls } from './PollControls'
import { PutAway } from './PutAway'
import { UseMenu } from './UseMenu'
import { isRemoved } from '../../rules/standing'

/** How often the line of time looks who is called what. */
const CALM_MS = 1000

type Props = {
  staff: Staff
  /** Whose part of the frame is open large: a student's id, or a group's owner. */
  looking: string | null
  onLook: (at: string | null) => void
  /** Opens a student's part of any frame. */
  onOpen: (student: string, frame: string) => void
  /** Opens the front screen's panel, with what it may show. */
  onFront: (show: Front) => void
  onGallery: (gallery: Gallery) => void
}

/** The frame that the class is on, or everybody's work on it. */
export function Stage({ staff, looking, onLook, onOpen, onFront, onGallery }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const sees = useLessonState((s) => s.sees)
  const frame = staff.board.frames.find((f) => f.id === (sees ?? staff.state.frame))!
  const people = useCalmState((s) => s.people, CALM_MS)
  useHearingOutcomes(frame)
  const nameOf = useCallback((id: string) => people.get(id)?.name ?? t('frame.somebody'), [people, t])
  const natural = frame.set ? 'answers' : frame.arrangement === 'class' ? 'frame' : 'everyone'
  const [picked, setPicked] = useState<{ frame: string; tab: string } | null>(null)
  const tab = looking ? 'everyone' : picked?.frame === frame.id ? picked.tab : natural
  const trigger =
    'rounded-lg px-3 py-1.5 text-slate hover:bg-mist data-[state=active]:bg-dusk-soft data-[state=active]:font-semibold data-[state=active]:text-dusk'
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(next) => {
        onLook(null)
        setPicked({ frame: frame.id, tab: next })
      }}
      className="flex h-[max(70vh,34rem)] min-w-0 flex-col lg:h-auto lg:min-h-0"
    >
      <div className="flex flex-wrap items-center gap-2 px-3 pt-2">
        <Tabs.List aria-label={frame.title} className="flex gap-1">
          {!frame.set && (
            <Tabs.Trigger value="frame" className={trigger}>
              {t('run.tabFrame')}
            </Tabs.Trigger>
          )}
          <Tabs.Trigger value="everyone" className={trigger}>
            {t('run.tabEveryone')}
          </Tabs.Trigger>
          {frame.prepared.some((m) => m.kind === 'poll') && (
            <Tabs.Trigger value="answers" className={trigger}>
              {t('run.tabAnswers')}
            </Tabs.Trigger>
          )}
          <Tabs.Trigger value="overview" className={trigger}>
            {t('run.tabOverview')}
          </Tabs.Trigger>
          <Tabs.Trigger value="line" className={trigger}>
            {t('run.tabLine')}
          </Tabs.Trigger>
        </Tabs.List>
        <PollControls frame={frame} staff={staff} />
        <span className="ms-auto flex items-center gap-3 text-sm text-slate">
          <LessonNotes frame={frame} />
          {frame.arrangement === 'groups' && <GroupsButton staff={staff} />}
          <UseMenu frame={frame} />
          <PutAway frame={frame} />
        </span>
      </div>
      <Elsewhere staff={staff} sees={sees} />
      <AtBoard staff={staff} />
      <Tabs.Content value="frame" className="flex min-h-0 grow flex-col">
        <ClassFrame frame={frame} staff={staff} />
      </Tabs.Content>
      <Tabs.Content value="everyone" className="flex min-h-0 grow flex-col">
        <Monitor frame={frame} staff={staff} large={looking} onLarge={onLook} onFront={onFront} onGallery={onGallery} />
      </Tabs.Content>
      <Tabs.Content value="answers" className="min-h-0 grow overflow-auto p-4">
        <Answers frame={frame} staff={staff} />
      </Tabs.Content>
      <Tabs.Content value="overview" className="flex min-h-0 grow flex-col">
        <Overview session={lesson.session} onLook={onOpen} />
      </Tabs.Content>
      <Tabs.Content value="line" className="min-h-0 grow overflow-auto p-3" data-part="line">
        <LessonLine session={lesson.session} board={staff.board} nameOf={nameOf} live />
      </Tabs.Content>
    </Tabs.Root>
  )
}

const nothing: Element[] = []
/** How a poll stands that the class has not reached. */
const notAsked: PollState = { phase: 'open', round: 1 }

function ClassFrame({ frame, staff }: { frame: Frame; staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const shows = staff.state.front.kind === 'frame' && frame.id === staff.state.frame
  const sheets = useLessonState((s) => s.sheets)
  const sheet = sheets.find((s) => s.frame === frame.id && s.owner === 'class')
  const outcomes = useLessonState((s) => s.outcomes)
  return (
    <Workplace
      key={sheet?.sheet ?? frame.id}
      frame={frame}
      sheet={sheet?.sheet ?? null}
      marks={frame.arrangement === 'class' ? (sheet?.marks ?? []).filter((m) => !isRemoved(m)) : nothing}
      me="staff"
      mayAdd={frame.arrangement === 'class'}
      // The class in front sees the part of the columns that its teacher looks at.
      from={shows ? staff.state.front.from : undefined}
      onFrom={(from) => shows && void lesson.give({ kind: 'front', front: { kind: 'frame', from } })}
      poll={(mark) => {
        const { phase, round } = staff.state.polls[mark.id] ?? notAsked
        return <PollCard mark={mark} phase={phase} round={round} tally={outcomes.get(mark.id)} onFrame />
      }}
      cover={(mark) => <Cover mark={mark} staff={staff} />}
      more={(selected) =>
        frame.arrangement !== 'class' ? (
          <span className="text-sm text-slate">
            {t(frame.arrangement === 'groups' ? 'run.groupCopies' : 'run.ownCopies')}
          </span>
        ) : (
          sheet &&
          (selected ? (
            <Moderate mark={selected} sheet={sheet.sheet} />
          ) : (
            <>
              <StackButton />
              {!frame.layout.columns?.length && <IntoColumns frame={frame.id} marks={sheet.marks} />}
              {!frame.layout.columns?.length && <Spread sheet={sheet.sheet} marks={sheet.marks} />}
              <AlikeButton frame={frame} sheet={sheet.sheet} />
              <AskAbout staff={staff} frame={frame} marks={sheet.marks} />
              <HistoryButton frame={frame} sheet={sheet.sheet} />
              <ClearMenu sheet={sheet.sheet} marks={sheet.marks} />
            </>
          ))
        )
      }
    />
  )
}
