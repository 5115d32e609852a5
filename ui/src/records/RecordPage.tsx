import { useQuery } from '@tanstack/react-query'
import { Check, ClipboardList, Download, ListChecks, X } from 'lucide-react'
import { useCallback, useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useParams } from 'react-router'
import { marksOf } from '../rules/answers'
import { GiveBack } from './marking/GiveBack'
import { useMarking } from './marking/useMarking'
import { Questions } from './Questions'
import { PollCard } from '../polls/PollCard'
import { textOf } from '../frame/paint/geometry'
import { nameKey } from '../frame/marks/useMark'
import { TakeUp } from './TakeUp'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import { Changes } from '../kit/windows/Changes'
import { Dialog } from '../kit/windows/Dialog'
import { Face } from '../kit/people'
import { LevelBadge } from '../kit/LevelBadge'
import { Logo } from '../kit/Logo'
import { call, codeOf } from '../wire/http'
import type { Element, Frame, Kept, OnFrame, RecordReply, WorkJudged } from '../wire/types.gen'
import { TakeOut } from '../kit/windows/TakeOut'
import { WhoIs } from '../kit/windows/WhoIs'
import { LessonLine } from '../line/LessonLine'
import { when } from '../words/words'
import { isHidden } from '../rules/standing'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'

/** What was changed in the lesson, to be taken into its board afterwards. */
function ChangesButton({ session }: { session: string }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <ListChecks size={17} aria-hidden="true" />
        {t('rework.changes')}
      </Button>
      {open && (
        <Dialog open onOpenChange={setOpen} title={t('rework.changesTitle')}>
          <Changes session={session} />
        </Dialog>
      )}
    </>
  )
}

/** What is kept of a session: for each student and frame what they wrote, drew and chose. */
export function RecordPage() {
  const { t } = useTranslation()
  useTitle(t('record.title'))
  const { session = '' } = useParams()
  const query = useQuery({
    queryKey: ['record', session],
    queryFn: () => call<RecordReply>('GET', `/sessions/${session}/record`),
    staleTime: 0,
  })
  const marking = useMarking(session)
  const [takesOut, takeOut] = useState(false)
  /** Of whom is asked which student they were. */
  const [who, askWho] = useState<Kept | null>(null)
  const students = query.data?.record.students
  const nameOf = useCallback(
    (id: string) => students?.find((s) => s.id === id)?.name ?? t('frame.somebody'),
    [students, t],
  )
  if (query.isError && codeOf(query.error) === 'sign-in-needed') return <ToSignIn />
  if (!query.data) {
    return (
      <main className="grid min-h-full place-items-center">
        <p role="status">{query.isError ? t(`refusal.${codeOf(query.error)}`) : t('loading')}</p>
      </main>
    )
  }
  const { session: about, record, tied } = query.data
  return (
    <div className="min-h-full">
      <header className="flex flex-wrap items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <Link to="/boards" className="font-semibold text-dusk underline underline-offset-4">
          {t('record.back')}
        </Link>
        <span className="grow" />
        {about.endedAt && !about.practice && <TakeUp session={session} />}
        <ChangesButton session={session} />
        <Link
          to={`/records/${session}/report`}
          className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3.5 py-2 font-semibold hover:bg-mist"
        >
          <ClipboardList size={17} aria-hidden="true" />
          {t('record.report')}
        </Link>
        <Button onClick={() => takeOut(true)}>
          <Download size={17} aria-hidden="true" />
          {t('out.open')}
        </Button>
        <a
          href={`/api/sessions/${session}/record.csv`}
          download
          className="inline-flex items-center gap-2 rounded-lg bg-dusk px-3.5 py-2 font-semibold text-paper hover:bg-night"
        >
          <Download size={17} aria-hidden="true" />
          {t('record.csv')}
        </a>
      </header>
      <main className="mx-auto flex max-w-6xl flex-col gap-6 p-5">
        <div>
          <h1 className="text-3xl">{t('record.title', { title: about.title })}</h1>
          <p className="text-slate">
            {[about.className, when(about.startedAt), t('boards.students', { count: about.students })]
              .filter(Boolean)
              .join(' · ')}
          </p>
          {!about.endedAt && (
            <p className="mt-2 rounded-lg bg-amber-soft px-3 py-2 text-night">{t('record.running')}</p>
          )}
        </div>
        {record.tallies.length > 0 && record.students.length > 0 && (
          <section aria-labelledby="answers" className="max-w-2xl">
            <h2 id="answers" className="mb-2 text-xl">
              {t('record.answers')}
            </h2>
            {record.tallies.map((tally) => {
              const frame = record.board.frames.find((f) => f.id === tally.frame)
              const mark = frame?.prepared.find((m) => m.id === tally.poll)
              if (mark?.kind !== 'poll') return null
              return (
                <div key={`${tally.poll} ${tally.round}`}>
                  {tally.round > 1 && <h3 className="mt-4 mb-2">{t('poll.round', tally)}</h3>}
                  <PollCard mark={mark as Element & { kind: 'poll' }} phase="revealed" tally={tally} />
                  <p className="mt-1 text-slate">{t('record.answered', { count: tally.answered })}</p>
                </div>
              )
            })}
          </section>
        )}
        <GiveBack session={session} students={record.students} frames={record.board.frames} marking={marking} />
        <Questions session={about.id} />
        <section aria-labelledby="happened">
          <h2 id="happened" className="mb-3 text-xl">
            {t('run.tabLine')}
          </h2>
          <LessonLine session={about.id} board={record.board} nameOf={nameOf} days={query.data.days} />
        </section>
        <section aria-labelledby="students">
          <h2 id="students" className="mb-3 text-xl">
            {t('record.students')}
          </h2>
          {record.students.length === 0 && <p className="text-slate">{t('record.noOne')}</p>}
          <ul className="flex flex-col gap-4">
            {record.students.map((student) => (
              <StudentRow
                key={student.id}
                student={student}
                frames={record.board.frames}
                judged={marking.data?.judged.filter((j) => j.student === student.id && j.by === marking.data?.me) ?? []}
                unknown={tied !== undefined && !tied[student.id]}
                onWho={() => askWho(student)}
              />
            ))}
          </ul>
        </section>
        {takesOut && (
          <TakeOut
            of="sessions"
            id={session}
            title={about.title}
            frames={record.board.frames.map((f, i) => ({ id: f.id, name: `${i + 1}. ${f.title}` }))}
            students={record.students}
            onClose={() => takeOut(false)}
          />
        )}
        {who && (
          <WhoIs
            session={session}
            id={who.id}
            name={who.name}
            student={tied?.[who.id] ?? ''}
            onClose={() => askWho(null)}
          />
        )}
      </main>
    </div>
  )
}

type RowProps = {
  student: Kept
  frames: Frame[]
  /** What one thinks of their work oneself. */
  judged: WorkJudged[]
  /** There is a class list, and nobody has said which student this is. */
  unknown: boolean
  onWho: () => void
}

function StudentRow({ student, frames, judged, unknown, onWho }: RowProps) {
  const { t } = useTranslation()
  const whole = judged.find((j) => !j.frame)
  return (
    <li id={student.id} className="rounded-2xl border border-line bg-paper p-4">
      <h3 className="mb-3 flex items-center gap-2.5 text-lg">
        <Face id={student.id} name={student.name} />
        {student.name}
        {whole?.level && <LevelBadge level={whole.level} />}
        {unknown && (
          <Button className="text-base" onClick={onWho}>
            {t('whoIs.open', { name: student.name })}
          </Button>
        )}
      </h3>
      <ol className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        {student.frames.map((on, i) => (
          <FrameCard
            key={on.frame}
            on={on}
            frame={frames[i]!}
            id={`${student.id}.${on.frame}`}
            n={i + 1}
            name={student.name}
            judged={judged.find((j) => j.frame === on.frame && !j.mark)}
          />
        ))}
      </ol>
    </li>
  )
}

type FrameProps = { on: OnFrame; frame: Frame; id: string; n: number; name: string; judged?: WorkJudged }

function FrameCard({ on, frame, id, n, name, judged }: FrameProps) {
  const { t } = useTranslation()
  // A search leads here.
  const sought = decodeURIComponent(useLocation().hash.slice(1)) === id
  useEffect(() => {
    if (sought) document.getElementById(id)?.scrollIntoView({ block: 'center' })
  }, [sought, id])
  const strokes = on.marks.filter((m) => m.kind === 'stroke').length
  const arrows = on.marks.filter((m) => m.kind === 'connector').length
  const said = (m: Element) =>
    m.kind === 'stamp'
      ? t(`stamps.${m.stamp.sign}`)
      : m.kind === 'link'
        ? `${m.link.title ?? ''} ${m.link.url}`.trim()
        : textOf(m)
  const written = on.marks.filter((m) => said(m) !== '')
  const nothing = on.marks.length === 0 && on.answers.length === 0
  // Of several questions each answer says to which it is.
  const polls = frame.prepared.filter((m) => m.kind === 'poll')
  const asked = (poll: string) => (polls.length > 1 ? polls.findIndex((p) => p.id === poll) + 1 : 0)
  const inOrder = [...on.answers].sort((a, b) => asked(a.poll) - asked(b.poll) || a.round - b.round)
  return (
    <li
      id={id}
      tabIndex={-1}
      className={`flex scroll-mt-6 flex-col gap-2 rounded-lg ${sought ? 'outline-3 outline-offset-4 outline-dusk' : ''}`}
    >
      <h4 className="text-sm font-semibold text-slate">
        {n}. {frame.title}
      </h4>
      {judged?.level && (
        <p>
          <LevelBadge level={judged.level} />
        </p>
      )}
      {judged?.comment && (
        <p dir="auto" className="border-s-4 border-dusk ps-2 text-sm break-words">
          {judged.comment}
        </p>
      )}
      {nothing ? (
        <p className="rounded-lg bg-mist px-3 py-2 text-slate">{t('record.nothing')}</p>
      ) : (
        <div className="overflow-hidden rounded-lg border border-line">
          <Thumbnail
            frame={frame}
            marks={[...on.marks, ...marksOf(on.answers)]}
            width={340}
            label={t('record.pictureOf', { name, n })}
          />
        </div>
      )}
      <ul className="flex flex-col gap-1 empty:hidden">
        {written.map((m) => (
          <li key={m.id} className="rounded-md bg-snow px-2.5 py-1.5 break-words whitespace-pre-wrap">
            {m.kind !== 'note' && m.kind !== 'text' && <span className="text-slate">{t(`marks.${nameKey(m)}`)}: </span>}
            {said(m)}
            {m.agreed?.length ? (
              <span className="text-sm text-slate"> ({t('marks.agreed', { count: m.agreed.length })})</span>
            ) : null}
            {isHidden(m) && <span className="text-sm text-slate"> ({t('run.hidden')})</span>}
          </li>
        ))}
        {strokes > 0 && <li className="px-2.5 text-slate">{t('record.drawn', { count: strokes })}</li>}
        {arrows > 0 && <li className="px-2.5 text-slate">{t('record.arrows', { count: arrows })}</li>}
        {on.handed !== undefined && <li className="px-2.5 text-sm text-fern-deep">{t('record.handed')}</li>}
        {inOrder.map((a) => (
          <li key={`${a.poll} ${a.round}`} className="flex flex-wrap items-center gap-x-2 px-2.5">
            {asked(a.poll) > 0 && (
              <span className="text-slate tabular-nums" title={polls.find((p) => p.id === a.poll)?.poll.text}>
                {asked(a.poll)}.
              </span>
            )}
            {a.round > 1 && <span className="text-sm text-slate">{t('poll.round', a)}</span>}
            <span className="font-semibold" dir="auto">
              {a.text}
            </span>
            {a.mistake && <span className="text-sm text-amber">{a.mistake}</span>}
            {a.first && (
              <span className="text-sm text-slate">
                {t('record.tries', { count: a.tries ?? 2, first: a.first.text })}
              </span>
            )}
            {a.late && <span className="text-sm text-slate">({t('asking.late')})</span>}
            {a.verdict === 'right' && (
              <span className="inline-flex items-center gap-1 rounded-md bg-fern-soft px-1.5 text-sm font-semibold text-fern-deep">
                <Check size={14} aria-hidden="true" />
                {t('record.right')}
              </span>
            )}
            {a.verdict === 'wrong' && (
              <span className="inline-flex items-center gap-1 rounded-md bg-rose-soft px-1.5 text-sm font-semibold text-rose">
                <X size={14} aria-hidden="true" />
                {t('record.wrong')}
              </span>
            )}
          </li>
        ))}
      </ul>
    </li>
  )
}
