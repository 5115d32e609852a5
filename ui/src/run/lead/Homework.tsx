import { useQuery } from '@tanstack/react-query'
import { House } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { DueField, evening } from '../../kit/fields/DueField'
import { Face } from '../../kit/people'
import { Refusal } from '../../kit/Refusal'
import { Switch } from '../../kit/fields/Switch'
import { Dialog } from '../../kit/windows/Dialog'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { call, codeOf } from '../../wire/http'
import type { Code, Homework as Home, HomeworkOf, HomeworkStand, HomeworkStands } from '../../wire/types.gen'
import { whenAt } from '../../words/words'

const AGAIN_MS = 10_000
/** The order in which a teacher looks at them: who has to be reminded first. */
const stands: HomeworkStand[] = ['missing', 'not-handed', 'not-begun', 'at-work', 'handed-late', 'handed-in']

/** Leaves a lesson open as homework, and once it is, says who stands where, gives more time and reminds. */
export function Homework({ session, home }: { session: string; home?: Home }) {
  const { t } = useTranslation()
  const [open, show] = useState(false)
  const label = home ? t('homework.until', { when: whenAt(home.until) }) : t('homework.open')
  return (
    <>
      <button
        type="button"
        aria-label={label}
        title={label}
        onClick={() => show(true)}
        className={`inline-flex min-h-10 items-center gap-2 rounded-lg border px-3 font-semibold ${home ? 'border-glow bg-glow-soft text-glow-deep' : 'border-edge bg-paper hover:bg-mist'}`}
      >
        <House size={18} aria-hidden="true" />
        {home && <span className="max-2xl:sr-only">{label}</span>}
      </button>
      {open && (
        <Dialog open onOpenChange={show} title={t('homework.title')} text={t('homework.text')} wide={Boolean(home)}>
          <Until key={home?.until} home={home} />
          {home && <Who session={session} home={home} />}
        </Dialog>
      )}
    </>
  )
}

/** Tells the lesson something; what is refused is told here. */
function useTold() {
  const lesson = useStaffLesson()
  const [problem, tell] = useState<Code | null>(null)
  const command = async (c: Parameters<typeof lesson.command>[0]) => {
    tell(null)
    try {
      await lesson.command(c)
      return true
    } catch (error) {
      tell(codeOf(error))
      return false
    }
  }
  return { lesson, problem, command }
}

function Until({ home }: { home?: Home }) {
  const { t } = useTranslation()
  const { problem, command } = useTold()
  const [until, setUntil] = useState(home?.until ?? evening(1))
  const [closes, setCloses] = useState(home?.closes ?? false)
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        void command({ kind: 'home', home: { until, closes } })
      }}
    >
      <Refusal code={problem} />
      <DueField label={t('homework.date')} at={until} onAt={setUntil} />
      <Switch label={t('homework.closes')} help={t('homework.closesHelp')} on={closes} onSwitch={setCloses} />
      <div className="flex flex-wrap gap-3">
        <Button look="main" type="submit">
          {t(home ? 'homework.change' : 'homework.leave')}
        </Button>
        {home && (
          <Button onClick={() => void command({ kind: 'home', home: { until: 0 } })}>{t('homework.stop')}</Button>
        )}
      </div>
    </form>
  )
}

/** Who has handed in and who has not, those first who are to be reminded. */
function Who({ session, home }: { session: string; home: Home }) {
  const { t } = useTranslation()
  const { lesson, problem, command } = useTold()
  const [longer, give] = useState<HomeworkStands | null>(null)
  const [reminded, remind] = useState<number | null>(null)
  const query = useQuery({
    queryKey: ['homework', session, home],
    queryFn: () => call<HomeworkOf>('GET', `/sessions/${session}/homework`),
    refetchInterval: AGAIN_MS,
  })
  if (query.isError) return <Refusal code={codeOf(query.error)} />
  const students = query.data?.students ?? []
  const sorted = [...students].sort(
    (a, b) => stands.indexOf(a.stand) - stands.indexOf(b.stand) || a.name.localeCompare(b.name),
  )
  const waiting = students.filter((s) => s.handed === undefined)
  const remindAll = async () => {
    let count = 0
    for (const s of waiting) {
      const text = t('homework.reminder', { when: whenAt(s.due) })
      if (await lesson.say({ kind: 'tell', tell: { student: s.student, text } })) count++
    }
    remind(count)
  }
  return (
    <section aria-labelledby="who" className="mt-5 flex flex-col gap-3 border-t border-line pt-4">
      <div className="flex flex-wrap items-center gap-3">
        <h3 id="who" className="grow text-lg">
          {t('homework.who', { in: students.length - waiting.length, count: students.length })}
        </h3>
        {waiting.length > 0 && (
          <Button onClick={() => void remindAll()}>{t('homework.remind', { count: waiting.length })}</Button>
        )}
      </div>
      <p role="status" className="text-slate empty:hidden">
        {reminded !== null && t('homework.reminded', { count: reminded })}
      </p>
      <Refusal code={problem} />
      <ul className="grid gap-x-6 gap-y-1.5 sm:grid-cols-2">
        {sorted.map((s) => (
          <li key={s.student} className="flex min-w-0 items-center gap-2.5 py-1">
            <Face id={s.student} name={s.name} faded={s.stand === 'missing' || s.stand === 'not-begun'} />
            <span className="min-w-0 grow">
              <span className="block truncate font-semibold">{s.name}</span>
              <span
                className={`block text-sm ${s.stand === 'missing' || s.stand === 'not-handed' ? 'text-rose' : 'text-slate'}`}
              >
                {t(`homework.stand_${s.stand}`, { when: s.handed ? whenAt(s.handed) : '', count: s.frames })}
                {s.due !== home.until && ` · ${t('homework.until', { when: whenAt(s.due) })}`}
              </span>
            </span>
            <Button look="quiet" aria-label={t('homework.longerFor', s)} onClick={() => give(s)}>
              {t('homework.longer')}
            </Button>
          </li>
        ))}
      </ul>
      {longer && (
        <Longer
          key={longer.student}
          student={longer}
          home={home}
          onGive={async (until) => {
            if (await command({ kind: 'home', home: { until, student: longer.student } })) give(null)
          }}
          onClose={() => give(null)}
        />
      )}
    </section>
  )
}

type LongerProps = {
  student: HomeworkStands
  home: Home
  onGive: (until: number) => Promise<void>
  onClose: () => void
}

/** Gives one student another date. */
function Longer({ student, home, onGive, onClose }: LongerProps) {
  const { t } = useTranslation()
  const [until, setUntil] = useState(Math.max(student.due, evening(1)))
  return (
    <Dialog open onOpenChange={onClose} title={t('homework.longerFor', student)}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          void onGive(until)
        }}
      >
        <DueField label={t('homework.date')} at={until} onAt={setUntil} />
        <div className="flex flex-wrap gap-3">
          <Button look="main" type="submit">
            {t('homework.give')}
          </Button>
          {student.due !== home.until && <Button onClick={() => void onGive(0)}>{t('homework.asAll')}</Button>}
        </div>
      </form>
    </Dialog>
  )
}
