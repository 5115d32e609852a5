import { useMemo, useState } from 'react'
import { useNow } from '../wire/hooks/useClock'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { Logo } from '../kit/Logo'
import { RefusalNotice } from '../kit/Notice'
import { SavedSign } from '../kit/SavedSign'
import type { Staff } from '../wire/lesson'
import type { Front } from '../wire/types.gen'
import { useCalmState } from '../wire/hooks/useCalm'
import { BenchProvider, useLessonState } from '../wire/hooks/useLesson'
import { useStaffConnection, useStaffLesson } from '../wire/hooks/useStaff'
import { onList } from './people/expected'
import { Finish } from './lead/Finish'
import { FrontButton } from './front/FrontButton'
import { Homework } from './lead/Homework'
import { Invitation } from './lead/Invitation'
import { LockMenu } from './lead/LockMenu'
import { PauseButton } from './lead/PauseButton'
import { Practice } from './lead/Practice'
import { Side } from './people/Side'
import { GalleryBar } from './gallery/GalleryBar'
import { whose, type Gallery } from './gallery/stops'
import { Stage } from './stage/Stage'
import { TimerButton } from './lead/TimerButton'
import { Trail } from './lead/Trail'
import { useKeys } from './useKeys'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'

/** The teacher's screen of a running session. */
export function Run() {
  const { session = '' } = useParams()
  return <Running key={session} session={session} />
}

function Running({ session }: { session: string }) {
  const lesson = useStaffConnection(session)
  return (
    <BenchProvider value={lesson}>
      <Session session={session} />
      <RefusalNotice />
    </BenchProvider>
  )
}

function Session({ session }: { session: string }) {
  const { t } = useTranslation()
  const told = useLessonState((s) => s.staff)
  const polls = useNow(told?.state.polls)
  const staff = useMemo(() => told && { ...told, state: { ...told.state, polls } }, [told, polls])
  useTitle(staff?.board.title)
  const closed = useLessonState((s) => s.closed)
  const lesson = useStaffLesson()
  const [looking, look] = useState<string | null>(null)
  const [front, setFront] = useState<Front | null>(null)
  const [begun, walk] = useState<Gallery | null>(null)
  const walked = staff?.state.walk
  const people = useLessonState((s) => s.people)
  const gallery = useMemo(
    () =>
      walked
        ? { frame: walked.frame, stops: walked.stops.map((owner) => ({ owner, name: whose(owner, people, t) })) }
        : begun,
    [walked, begun, people, t],
  )
  useKeys()
  if (closed) return <ToSignIn />
  if (!staff) {
    return (
      <main className="grid min-h-full place-items-center">
        <p role="status">{t('loading')}</p>
      </main>
    )
  }
  if (staff.state.ended) {
    return (
      <main className="grid min-h-full place-items-center p-6 text-center">
        <div>
          <h1 className="mb-4 text-2xl">{t('run.ended')}</h1>
          <Link to={`/records/${session}`} className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper">
            {t('run.toRecord')}
          </Link>
        </div>
      </main>
    )
  }
  /** Opens a student's part of a frame. */
  async function open(student: string, frame: string) {
    // Where the class is led it stays where it is.
    if (staff?.state.pace === 'led') lesson.lookAt(frame)
    else if (frame !== staff?.state.frame && !(await lesson.give({ kind: 'go', go: { frame } }))) return
    look(student)
  }
  return (
    <div className="flex min-h-full flex-col lg:h-dvh lg:overflow-hidden">
      <TopBar session={session} staff={staff} front={front} onFront={setFront} />
      <Trail staff={staff} />
      {gallery && <GalleryBar key={gallery.frame} gallery={gallery} walk={walked} onChange={walk} />}
      <main className="grid min-h-0 grow lg:grid-cols-[1fr_17rem]">
        <Stage
          staff={staff}
          looking={looking}
          onLook={look}
          onOpen={(student, frame) => void open(student, frame)}
          onFront={setFront}
          onGallery={walk}
        />
        <Side staff={staff} onLook={(student, frame) => void open(student, frame)} onFront={setFront} />
      </main>
    </div>
  )
}

/** How often the bar counts who is here. */
const CALM_MS = 300

type BarProps = { session: string; staff: Staff; front: Front | null; onFront: (open: Front | null) => void }

function TopBar({ session, staff, front, onFront }: BarProps) {
  const { t } = useTranslation()
  const people = useCalmState((s) => s.people, CALM_MS)
  const here = [...people.values()].filter((p) => p.here)
  const all = staff.expected.length
  // More than the list, or nobody who is on it: they are not counted against it.
  const listed = here.length <= all && (here.length === 0 || onList(staff.expected, here) > 0)
  return (
    <header className="flex flex-wrap items-center gap-x-2.5 gap-y-2 border-b max-sm:gap-x-1.5 border-line bg-paper px-4 py-2">
      <Link to="/boards" aria-label={t('boards.title')}>
        <Logo />
      </Link>
      <h1 className="max-w-72 min-w-0 truncate text-lg max-sm:max-w-48">{staff.board.title}</h1>
      <span className="text-slate lg:max-2xl:sr-only">{staff.className}</span>
      <span className="grow" />
      <span data-part="saved">
        <SavedSign />
      </span>
      <Invitation session={session} code={staff.code} state={staff.state} listed={all > 0} />
      <span className="text-slate">
        {all > 0 && listed ? t('run.here', { here: here.length, all }) : t('run.hereCount', { count: here.length })}
      </span>
      <TimerButton staff={staff} />
      <FrontButton session={session} staff={staff} open={front} onOpen={onFront} />
      <LockMenu staff={staff} />
      {!staff.practice && <Homework session={session} home={staff.state.home} />}
      <PauseButton paused={staff.state.paused ?? false} />
      {staff.practice ? <Practice session={session} /> : <Finish session={session} />}
    </header>
  )
}
