import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { VerdictSign } from '../../polls/charts/VerdictSign'
import { codeOf } from '../../wire/http'
import { useCalmState } from '../../wire/hooks/useCalm'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import type { Staff } from '../../wire/lesson'
import type { Element, Frame, SetOutcome, SetRow, SetStep } from '../../wire/types.gen'

type Poll = Element & { kind: 'poll' }
type Props = { frame: Frame; staff: Staff }

/** How often at most the table is asked for anew. */
const TABLE_MS = 2000

const isPoll = (m: Element): m is Poll => m.kind === 'poll' && !m.poll.insteadOf

/** How questions in a row go: what to do with them, and who stands how with which. */
export function InRow({ frame, onQuestion }: { frame: Frame; onQuestion: (poll: string) => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const set = useLessonState((s) => s.sets.get(frame.id))
  const polls = frame.prepared.filter(isPoll)
  const calm = useCalmState((s) => {
    const now = s.sets.get(frame.id)
    // Who comes or goes is asked, or is not any more.
    const here = [...s.people.values()].filter((p) => p.here).length
    return `${now?.given} ${now?.handed} ${here}`
  }, TABLE_MS)
  const online = useLessonState((s) => s.network === 'online')
  useEffect(() => {
    if (online) lesson.outcomesOf(frame.id).catch((error: unknown) => lesson.tell(codeOf(error)))
  }, [lesson, frame.id, calm, online])
  if (!set) return <p>{t('inRow.notBegun')}</p>
  const facts = [
    set.round > 1 && t('poll.round', { round: set.round }),
    t('inRow.given', { count: set.given, all: set.of * set.asked.length }),
    set.of > 0 && set.asked.length > 1 && t('inRow.all', { count: set.all, of: set.of }),
    frame.set?.ownPace && frame.set.feedback === 'end' && t('inRow.handed', { count: set.handed, of: set.of }),
  ].filter(Boolean)
  return (
    <section aria-labelledby="in-row" className="flex flex-col gap-4" data-part="in-row">
      <header className="flex flex-wrap items-center gap-3">
        <div className="me-auto">
          <h2 id="in-row" className="font-display text-2xl leading-tight font-semibold">
            {t('inRow.title')}
          </h2>
          <p role="status" className="text-slate">
            {facts.join(' · ')}
          </p>
        </div>
      </header>
      {set.rows && <Table polls={polls} set={set} rows={set.rows} onQuestion={onQuestion} />}
    </section>
  )
}

/** What a teacher may do with the row now. */
export function RowSteps({ frame, staff }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const polls = frame.prepared.filter(isPoll)
  const states = polls.map((p) => staff.state.polls[p.id])
  const open = states.some((s) => s?.phase === 'open')
  const revealed = states.every((s) => !s || s.phase === 'revealed')
  const led = !frame.set?.ownPace && staff.state.pace === 'led'
  const round = Math.max(0, ...states.map((s) => s?.round ?? 0))
  const at = round > 0 ? states.findLastIndex((s) => s?.round === round) : -1
  if (at < 0) return null
  const more = led && at < polls.length - 1
  const tell = (step: SetStep) => void lesson.give({ kind: 'set', set: { frame: frame.id, step } })
  return (
    <div className="flex flex-wrap gap-2">
      {led && <span className="self-center font-semibold">{t('inRow.at', { n: at + 1, of: polls.length })}</span>}
      {more && (
        <Button look="main" onClick={() => tell('next')}>
          {t('inRow.next')}
        </Button>
      )}
      {open && (
        <Button look={more ? 'plain' : 'main'} onClick={() => tell('close')}>
          {t(frame.set?.feedback ? 'inRow.closeAndShow' : 'inRow.close')}
        </Button>
      )}
      {!open && !revealed && (
        <Button look="main" onClick={() => tell('show')}>
          {t('inRow.show')}
        </Button>
      )}
      {!open && <Button onClick={() => tell('again')}>{t('inRow.again')}</Button>}
    </div>
  )
}

type TableProps = { polls: Poll[]; set: SetOutcome; rows: SetRow[]; onQuestion: (poll: string) => void }

/** Students by questions. */
function Table({ polls, set, rows, onQuestion }: TableProps) {
  const { t } = useTranslation()
  const people = useLessonState((s) => s.people)
  const asked = set.asked.flatMap((id) => polls.find((p) => p.id === id) ?? [])
  const outcomes = useLessonState((s) => s.outcomes)
  // There is room for the words of a few questions.
  const worded = asked.length <= 8
  const name = (id: string) => people.get(id)?.name ?? t('frame.somebody')
  const sorted = [...rows].sort((a, b) => name(a.student).localeCompare(name(b.student)))
  if (rows.length === 0) return <p className="text-slate">{t('inRow.nobody')}</p>
  return (
    <div className="max-h-[60vh] overflow-auto rounded-xl border border-line bg-paper">
      <table className={`border-separate border-spacing-0 text-sm ${worded ? 'w-full' : ''}`}>
        <caption className="sr-only">{t('inRow.table')}</caption>
        <thead>
          <tr>
            <th scope="col" className="sticky start-0 top-0 z-20 bg-snow px-3 py-2 text-start">
              {t('inRow.student')}
            </th>
            {asked.map((p) => (
              <th key={p.id} scope="col" className="sticky top-0 z-10 bg-snow p-1">
                <button
                  type="button"
                  title={p.poll.text}
                  aria-label={t('inRow.open', { n: polls.indexOf(p) + 1, question: p.poll.text })}
                  onClick={() => onQuestion(p.id)}
                  className="min-h-8 w-full min-w-9 rounded-md px-2 py-1 font-semibold text-dusk hover:bg-dusk-soft"
                >
                  {polls.indexOf(p) + 1}
                  {worded && (
                    <span dir="auto" className="mx-auto line-clamp-2 min-w-24 text-xs font-normal text-night">
                      {p.poll.text}
                    </span>
                  )}
                </button>
              </th>
            ))}
            <th scope="col" className="sticky end-0 top-0 z-20 bg-snow px-3 py-2 text-end">
              {t('inRow.right')}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr className="font-semibold">
            <th scope="row" className="sticky start-0 z-10 border-t border-line bg-snow px-3 py-1 text-start">
              {t('inRow.everybody')}
            </th>
            {asked.map((p) => {
              const { verdicts, answered = 0 } = outcomes.get(p.id) ?? {}
              const right = verdicts?.right ?? 0
              return (
                <td key={p.id} className="border-t border-line bg-snow px-1 py-1 text-center">
                  {verdicts && (
                    <span
                      role="img"
                      aria-label={t('inRow.share', { right, count: answered })}
                      title={t('inRow.share', { right, count: answered })}
                      className="mx-auto block h-2.5 w-4/5 min-w-8 overflow-hidden rounded-full bg-line"
                    >
                      <span
                        className="block h-full bg-fern"
                        style={{ width: `${answered ? (100 * right) / answered : 0}%` }}
                      />
                    </span>
                  )}
                </td>
              )
            })}
            <td className="sticky end-0 border-t border-line bg-snow" />
          </tr>
          {sorted.map((row) => (
            <tr key={row.student}>
              <th
                scope="row"
                className="sticky start-0 z-10 max-w-52 truncate border-t border-line bg-paper px-3 py-1 text-start font-normal"
              >
                {name(row.student)}
                {row.handed && <span className="ms-2 text-xs text-fern-deep">{t('inRow.in')}</span>}
              </th>
              {row.cells.map((c, i) => (
                <td key={asked[i]?.id ?? i} className="border-t border-line px-1 py-1 text-center">
                  {c.tries === 0 ? (
                    <span className="text-slate" aria-label={t('inRow.notAnswered')} role="img">
                      –
                    </span>
                  ) : (
                    <span className="inline-flex items-center gap-0.5">
                      {c.verdict ? (
                        <VerdictSign verdict={c.verdict} />
                      ) : (
                        <span role="img" aria-label={t('inRow.answered')}>
                          ●
                        </span>
                      )}
                      {c.tries > 1 && (
                        <span className="text-xs text-slate tabular-nums" title={t('inRow.tries', { count: c.tries })}>
                          {c.tries}
                        </span>
                      )}
                    </span>
                  )}
                </td>
              ))}
              <td className="sticky end-0 border-t border-line bg-paper px-3 py-1 text-end tabular-nums">
                {row.right}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
