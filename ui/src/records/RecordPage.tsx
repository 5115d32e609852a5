import { useQuery } from '@tanstack/react-query'
import { ClipboardList, Download, ListChecks } from 'lucide-react'
import { useCallback, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { ByFrame } from './ByFrame'
import { GiveBack } from './marking/GiveBack'
import { useMarking } from './marking/useMarking'
import { Questions } from './Questions'
import { PollCard } from '../polls/PollCard'
import { TakeUp } from './TakeUp'
import { Button } from '../kit/Button'
import { Changes } from '../kit/windows/Changes'
import { Dialog } from '../kit/windows/Dialog'
import { Logo } from '../kit/Logo'
import { call, codeOf } from '../wire/http'
import type { Element, GiveBack as Give, Kept, RecordReply } from '../wire/types.gen'
import { StudentRow } from './StudentRow'
import { TakeOut } from '../kit/windows/TakeOut'
import { WhoIs } from '../kit/windows/WhoIs'
import { LessonLine } from '../line/LessonLine'
import { when } from '../words/words'
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
    queryKey: ['record', session, 'light'],
    queryFn: () => call<RecordReply>('GET', `/sessions/${session}/record?light=1`),
    staleTime: 0,
  })
  const marking = useMarking(session)
  const [takesOut, takeOut] = useState(false)
  const [by, setBy] = useState<'student' | 'frame'>('student')
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
        <GiveBack
          session={session}
          students={record.students}
          frames={record.board.frames}
          criteria={record.board.criteria ?? []}
          marking={marking}
        />
        <Questions session={about.id} />
        <section aria-labelledby="happened">
          <h2 id="happened" className="mb-3 text-xl">
            {t('run.tabLine')}
          </h2>
          <LessonLine session={about.id} board={record.board} nameOf={nameOf} days={query.data.days} />
        </section>
        <section aria-labelledby="students">
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <h2 id="students" className="grow text-xl">
              {t('record.students')}
            </h2>
            {(['student', 'frame'] as const).map((way) => (
              <Button
                key={way}
                look={way === by ? 'main' : 'plain'}
                aria-pressed={way === by}
                onClick={() => setBy(way)}
              >
                {t(`record.by_${way}`)}
              </Button>
            ))}
          </div>
          {record.students.length === 0 && <p className="text-slate">{t('record.noOne')}</p>}
          {by === 'frame' && (
            <ByFrame
              session={session}
              frames={record.board.frames}
              judged={marking.data?.judged.filter((j) => j.by === marking.data?.me) ?? []}
            />
          )}
          <ul hidden={by !== 'student'} className="flex flex-col gap-4">
            {record.students.map((student) => (
              <StudentRow
                key={student.id}
                session={session}
                student={student}
                frames={record.board.frames}
                judged={marking.data?.judged.filter((j) => j.student === student.id && j.by === marking.data?.me) ?? []}
                unknown={tied !== undefined && !tied[student.id]}
                given={marking.data?.given[student.id]}
                onGive={
                  about.endedAt && marking.data?.me === marking.data?.owner
                    ? (undo) =>
                        void marking.act(() =>
                          call('POST', `/sessions/${session}/given`, { students: [student.id], undo } satisfies Give),
                        )
                    : undefined
                }
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
