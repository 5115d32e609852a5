import { Suspense, useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { speak } from '../words/words'
import { Link, useParams } from 'react-router'
import { part } from '../kit/part'
import { Workplace } from '../frame/Workplace'
import { RefusalNotice } from '../kit/Notice'
import { Face } from '../kit/people'
import { SavedSign } from '../kit/SavedSign'
import { useNarrow, useTurned } from '../kit/hooks/useNarrow'
import { call } from '../wire/http'
import type { Element, Me } from '../wire/types.gen'
import { ownerOf } from '../wire/sheets'
import { useAsked } from '../wire/hooks/useAsked'
import { useLeft, useUntil } from '../wire/hooks/useClock'
import { BenchProvider, useHandedIn, useLessonConnection, useLessonState } from '../wire/hooks/useLesson'
import { useTitle } from '../kit/hooks/useTitle'

// Only lessons with a poll need it.
const Reading = part(() => import('./Reading'))
const StudentPoll = part(() => import('./StudentPoll'))
const QuestionSet = part(() => import('./set/QuestionSet'))
// Only lessons with a timer, or at own pace, need these.
const Voice = part(() => import('./Voice'))
const StudentTimer = part(() => import('./StudentTimer'))
const Homework = part(() => import('./Homework'))
const Told = part(() => import('./Told'))
const Walk = part(() => import('./Walk'))
const Remarked = part(() => import('./Remarked'))
const Way = part(() => import('./Way').then((m) => ({ default: m.Way })))

const AGAIN_MS = 3000

/** The student's screen: finds out whether this device has a seat here, and shows the lesson. */
export function StudentLesson() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  const me = useAsked(() => call<Me>('GET', '/me'), 'me')
  const language = me.data?.seat?.language
  useEffect(() => {
    if (language) void speak(language)
  }, [language])
  if (me.problem === 'unavailable') return <NoNetwork again={me.again} />
  if (me.problem) return <Message title={t('refusal.unavailable')} retry={me.again} />
  if (!me.data) return <Message title={t('loading')} />
  const seat = me.data.seat
  if (seat?.session !== session) return <Message title={t('student.gone')} text={t('student.goneText')} />
  return <Seated key={session} session={session} seat={`${session} ${seat.name}`} />
}

function Seated({ session, seat }: { session: string; seat: string }) {
  const lesson = useLessonConnection(session, 'student', seat)
  return (
    <BenchProvider value={lesson}>
      <Lesson />
      <RefusalNotice />
    </BenchProvider>
  )
}

/** The page is there and the server is not: it is asked again until it answers. */
function NoNetwork({ again }: { again: () => void }) {
  const { t } = useTranslation()
  useEffect(() => {
    const timer = setInterval(again, AGAIN_MS)
    return () => clearInterval(timer)
  }, [again])
  return <Message title={t('student.offlineTitle')} text={t('student.offline')} retry={again} />
}

function Message({ title, text, retry, given }: { title: string; text?: string; retry?: () => void; given?: string }) {
  const { t } = useTranslation()
  return (
    <main className="grid min-h-full place-items-center p-6 text-center">
      <div>
        <h1 className="mb-2 text-2xl">{title}</h1>
        {text && <p className="mb-6 text-slate">{text}</p>}
        <p className="mt-4 flex justify-center gap-3">
          {retry && (
            <button type="button" className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper" onClick={retry}>
              {t('retry')}
            </button>
          )}
          {given && (
            <Link to={given} className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper">
              {t('student.toGiven')}
            </Link>
          )}
          <Link to="/" className="rounded-lg border border-edge bg-paper px-4 py-2 font-semibold">
            {t('student.toStart')}
          </Link>
        </p>
      </div>
    </main>
  )
}

/** What a student sees and does. */
export function Lesson() {
  const { t } = useTranslation()
  const { session } = useParams()
  const student = useLessonState((s) => s.student)
  useTitle(student?.stage.frame.title || student?.stage.title)
  const closed = useLessonState((s) => s.closed)
  const tooLate = useLessonState((s) => s.tooLate)
  const sheets = useLessonState((s) => s.sheets)
  const left = useLeft(student?.stage.timer)
  const ends = useUntil(student?.stage.atBoard?.until)
  const due = useUntil(student?.stage.home?.until)
  const handed = useHandedIn(student?.stage.home)
  const lockEnds = useUntil(student?.stage.lockedUntil)
  const narrow = useNarrow()
  const turned = useTurned()
  const [picture, setPicture] = useState('')

  if (closed) return <Message title={t('student.gone')} text={t(`refusal.${closed}`)} />
  if (!student) return <Message title={t('loading')} />
  const { me, stage } = student
  if (stage.ended) {
    const late = tooLate > 0 ? ` ${t('student.endedUnsaved', { count: tooLate })}` : ''
    return (
      <Message title={t('student.ended')} text={t('student.endedText') + late} given={session && `/given/${session}`} />
    )
  }

  const { frame } = stage
  const own = sheets.find((s) => s.frame === frame.id && s.owner === me.id)
  const owner = ownerOf(frame.arrangement, me.id, stage.group?.number)
  const surface = sheets.find((s) => s.frame === frame.id && s.owner === owner)
  const locked = stage.locked || (stage.timer?.look && left?.over) || (stage.lockedUntil && !lockEnds?.over) || false
  const remarked = surface?.marks.some((m) => m.kind === 'remark') && !stage.walk
  const atBoard = stage.atBoard?.student === me.id && frame.arrangement === 'class' && !ends?.over
  // Handed in, or once the time is over, homework is looked at.
  const rests = stage.home !== undefined && (handed > 0 || (stage.home.closes === true && due?.over === true))
  const mayAdd = !rests && ((frame.permission !== 'look' && !locked) || atBoard)
  // A frame made for notes is read and written on as a page where a screen is small.
  const inColumns = (frame.layout.columns?.length ?? 0) > 0
  const reads = narrow && inColumns
  const onlyPoll = frame.prepared.length > 0 && frame.prepared.every((e) => e.kind === 'poll') && !mayAdd
  // A question on the spot is its frame's title, too: it is read once.
  const [first] = frame.prepared
  const saidBelow =
    onlyPoll && !frame.set && !frame.prompt && first?.kind === 'poll' && first.poll.text.startsWith(frame.title)

  const poll = (mark: Element & { kind: 'poll' }, onFrame: boolean) => {
    const state = stage.polls[mark.id] ?? ({ phase: 'closed', round: 1 } as const)
    return (
      <Suspense key={`${mark.id} ${state.round}`} fallback={null}>
        <StudentPoll mark={mark} state={state} own={own} me={me.id} onFrame={onFrame} />
      </Suspense>
    )
  }
  const polls = frame.prepared.filter((e) => e.kind === 'poll') as Array<Element & { kind: 'poll' }>
  const where = { class: () => t('student.shared'), individual: () => t('student.own'), groups: () => <OwnGroup /> }
  const place = frame.set || (polls.length > 0 && !mayAdd) ? null : where[frame.arrangement]()

  const trail = stage.trail && (
    <Suspense fallback={null}>
      <Way stage={stage} titled={!narrow && !turned} />
    </Suspense>
  )

  const timer = left && (
    <Suspense fallback={null}>
      <StudentTimer timer={stage.timer!} left={left} />
    </Suspense>
  )
  const voice = (
    <Suspense fallback={null}>
      <Voice frame={frame.id} />
    </Suspense>
  )

  return (
    <div className="h-dvh" data-part="student">
      <div className="flex h-dvh flex-col overflow-hidden bg-mist turned:flex-row">
        <p role="status" className="sr-only">
          {stage.paused ? t('student.rest') : ''}
        </p>
        {stage.paused && (
          <div
            role="dialog"
            aria-modal="true"
            aria-labelledby="rest"
            className="fixed inset-0 z-50 grid place-items-center bg-night p-8 text-center text-paper"
          >
            <div className="max-w-md">
              <h1 id="rest" className="mb-3 text-3xl">
                {t('student.rest')}
              </h1>
              <p className="text-xl">{t('student.restText')}</p>
            </div>
          </div>
        )}
        <header
          inert={stage.paused}
          aria-label={t('student.header')}
          className="flex items-center gap-3 border-b border-line bg-paper px-3.5 py-2 turned:w-20 turned:shrink-0 turned:flex-col turned:overflow-y-auto turned:border-e turned:border-b-0 turned:px-1.5 turned:text-center"
        >
          <Face id={me.id} name={me.name} />
          <div className={`turned:sr-only ${trail && !narrow ? 'max-w-72 min-w-36' : 'min-w-0 grow'}`}>
            <p className="truncate font-semibold">{me.name}</p>
            <p className="truncate text-sm text-slate">
              {t('student.of', { n: stage.number, of: stage.of })}
              {place && <> · {place}</>}
            </p>
          </div>
          {!narrow && !turned && trail}
          {!narrow && timer}
          <span data-part="saved">
            <SavedSign />
          </span>
          {!narrow && voice}
        </header>
        <div className="flex min-h-0 min-w-0 grow flex-col">
          {narrow && (
            <div
              inert={stage.paused}
              className="flex items-center justify-between gap-3 border-b border-line bg-paper px-3.5 py-1.5"
            >
              {voice}
              {timer}
            </div>
          )}
          {stage.home && (
            <Suspense fallback={null}>
              <Homework home={stage.home} />
            </Suspense>
          )}
          <AtBoard over={ends?.over ?? false} />
          <Coming />
          <FromTeacher />
          {remarked && (
            <Suspense>
              <Remarked sheet={surface!} me={me.id} />
            </Suspense>
          )}
          {(narrow || turned) && trail}
          <p role="status" className="bg-glow-soft px-4 py-1.5 font-semibold text-glow-deep empty:hidden">
            {locked && !atBoard && !stage.walk && t('student.locked')}
          </p>
          <p role="status" className="sr-only">
            {t('student.station', { n: stage.number, title: frame.title })}
          </p>
          <main className="flex min-h-0 grow flex-col" aria-labelledby="task" inert={stage.paused}>
            <div
              className={
                (narrow || onlyPoll || frame.set) && !saidBelow && !stage.walk ? 'bg-paper px-4 py-3' : 'sr-only'
              }
            >
              <h1 id="task" dir="auto" className="text-xl leading-tight">
                {frame.title || t('student.of', { n: stage.number, of: stage.of })}
              </h1>
              {frame.prompt && (
                <p dir="auto" className="mt-1 text-slate">
                  {frame.prompt}
                </p>
              )}
            </div>
            {stage.walk ? (
              <Suspense fallback={null}>
                <Walk walk={stage.walk} me={me.id} group={stage.group?.number} />
              </Suspense>
            ) : frame.set ? (
              <Suspense fallback={null}>
                <QuestionSet key={frame.id} stage={stage} own={own} me={me.id} />
              </Suspense>
            ) : onlyPoll ? (
              <div className="min-h-0 grow overflow-auto p-4">
                <div className="mx-auto flex max-w-3xl flex-col gap-4">{polls.map((p) => poll(p, false))}</div>
              </div>
            ) : reads && picture !== frame.id && surface ? (
              <Suspense fallback={null}>
                <Reading
                  frame={frame}
                  sheet={surface.sheet}
                  marks={surface.marks}
                  me={me.id}
                  mayAdd={mayAdd}
                  onPicture={() => setPicture(frame.id)}
                >
                  {polls.map((p) => poll(p, false))}
                </Reading>
              </Suspense>
            ) : (
              <>
                {reads && (
                  <button
                    type="button"
                    className="m-2 min-h-11 self-start rounded-lg border border-edge bg-paper px-3 font-semibold"
                    onClick={() => setPicture('')}
                  >
                    {t('student.read')}
                  </button>
                )}
                <Workplace
                  key={surface?.sheet ?? frame.id}
                  frame={frame}
                  sheet={surface?.sheet ?? null}
                  marks={surface?.marks ?? []}
                  me={me.id}
                  mayAdd={mayAdd}
                  prompt={!narrow}
                  fills={reads}
                  tool={frame.arrangement === 'individual' && mayAdd && !inColumns ? 'pen' : 'select'}
                  poll={narrow ? undefined : (mark) => poll(mark, true)}
                  more={() =>
                    mayAdd ? null : (
                      <span className="text-sm text-slate">{t(locked ? 'student.locked' : 'student.look')}</span>
                    )
                  }
                />
                {narrow && polls.length > 0 && (
                  <div className="max-h-[50vh] overflow-auto p-3">{polls.map((p) => poll(p, false))}</div>
                )}
              </>
            )}
          </main>
        </div>
      </div>
    </div>
  )
}

/** Who is at the board, to everybody. */
function AtBoard({ over }: { over: boolean }) {
  const { t } = useTranslation()
  const student = useLessonState((s) => s.student)
  const name = useLessonState((s) => s.people.get(s.student?.stage.atBoard?.student ?? '')?.name)
  const who = over ? undefined : student?.stage.atBoard?.student
  return (
    <p role="status" className="bg-dusk-soft px-4 py-1.5 font-semibold text-dusk empty:hidden">
      {who && (who === student?.me.id ? t('student.atBoard') : name && t('student.otherAtBoard', { name }))}
    </p>
  )
}

/** The teacher's word to somebody who needs help. */
function Coming() {
  const { t } = useTranslation()
  const help = useLessonState((s) => s.said.own?.help)
  return (
    <p role="status" className="bg-dusk-soft px-4 py-1.5 font-semibold text-dusk empty:hidden">
      {help === 'coming' ? t('student.coming') : help === 'called' ? t('student.called') : null}
    </p>
  )
}

/** The teacher's words to this student alone. */
function FromTeacher() {
  const told = useLessonState((s) => s.said.own?.told)
  return (
    <div role="status">
      {told && told.length > 0 && (
        <Suspense>
          <Told told={told} />
        </Suspense>
      )}
    </div>
  )
}

/** Who is in the student's group. */
function OwnGroup() {
  const { t, i18n } = useTranslation()
  const student = useLessonState((s) => s.student)
  const people = useLessonState((s) => s.people)
  const group = student?.stage.group
  if (!group) return null
  const others = group.members.flatMap((id) => (id === student.me.id ? [] : (people.get(id)?.name ?? [])))
  const names = new Intl.ListFormat(i18n.language).format(others)
  return t(names ? 'student.group' : 'student.groupAlone', { n: group.number, names })
}
