import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import { Pick } from '../kit/fields/Pick'
import type { Board, Day, TimeLine } from '../wire/types.gen'
import { clock, whenAt } from '../words/words'
import { Picture } from './Picture'
import { Stills } from './Stills'
import { commandInWords, deedInWords, type Names } from './words'

const AGAIN_MS = 10_000
/** How many events are listed at first. */
const FIRST = 60

type Props = {
  session: string
  board: Board
  nameOf: (student: string) => string
  /** The lesson still goes on. */
  live?: boolean
  /** Its days, where it was taken up again. */
  days?: Day[]
}

type Which = 'all' | 'told' | 'deeds'

/** The lesson as a line of time: where the class was, how much was done when, and what its teacher did. */
export function LessonLine({ session, board, nameOf, live, days = [] }: Props) {
  const { t } = useTranslation()
  const [day, see] = useState('0')
  const reply = useQuery({
    queryKey: ['line', session, day],
    queryFn: () => call<TimeLine>('GET', `/sessions/${session}/line?day=${day}`),
    refetchInterval: live ? AGAIN_MS : false,
  })
  if (reply.isError) return <Refusal code={codeOf(reply.error)} />
  if (!reply.data) return <p role="status">{t('loading')}</p>
  return (
    <div className="flex flex-col gap-4">
      {days.length > 1 && (
        <Pick
          label={t('homework.days', { count: days.length })}
          value={day}
          options={[
            { value: '0', name: t('homework.allDays') },
            ...days.map((d, i) => ({
              value: String(i + 1),
              name: t('homework.day', { n: i + 1, when: whenAt(d.from) }),
            })),
          ]}
          onPick={see}
        />
      )}
      <Picture line={reply.data} board={board} />
      <Stills session={session} live={live} />
      <Events line={reply.data} board={board} nameOf={nameOf} />
    </div>
  )
}

/** What happened when, in words, the latest first. */
function Events({ line, board, nameOf }: { line: TimeLine } & Pick<Props, 'board' | 'nameOf'>) {
  const { t, i18n } = useTranslation()
  const [which, see] = useState<Which>('all')
  const [most, setMost] = useState(FIRST)
  const events = useMemo(() => {
    const at = new Map(board.frames.map((f, i) => [f.id, i]))
    const polls = new Map(
      board.frames.flatMap((f) => f.prepared.flatMap((m) => (m.kind === 'poll' ? [[m.id, m.poll.text] as const] : []))),
    )
    const names: Names = {
      frame: (id) => t('line.frame', { n: (at.get(id) ?? -1) + 1, title: board.frames[at.get(id) ?? -1]?.title ?? '' }),
      poll: (id) => polls.get(id)?.slice(0, 60) ?? '',
      person: nameOf,
    }
    const list = new Intl.ListFormat(i18n.language)
    return line.events
      .filter((e) => which === 'all' || (which === 'deeds' ? e.deed : e.command))
      .map((e) => ({
        at: e.at,
        words: e.command ? commandInWords(t, e.command, names) : e.deed ? deedInWords(t, e.deed, names, list) : '',
      }))
      .reverse()
  }, [line, board, nameOf, which, t, i18n.language])
  return (
    <section aria-label={t('line.events')}>
      <label className="mb-2 flex items-center gap-2">
        {t('line.see')}
        <select
          value={which}
          onChange={(e) => see(e.target.value as Which)}
          className="rounded-lg border border-edge bg-paper px-2 py-1.5"
        >
          {(['all', 'told', 'deeds'] as const).map((w) => (
            <option key={w} value={w}>
              {t(`line.see_${w}`)}
            </option>
          ))}
        </select>
      </label>
      {events.length === 0 && <p className="text-slate">{t('line.none')}</p>}
      <ol className="flex flex-col">
        {events.slice(0, most).map((e, i) => (
          <li key={i} className="grid grid-cols-[5.5rem_1fr] gap-2 border-t border-line py-1.5">
            <time dateTime={new Date(e.at).toISOString()} className="text-slate tabular-nums">
              {clock(e.at)}
            </time>
            <span>{e.words}</span>
          </li>
        ))}
      </ol>
      {events.length > most && (
        <button
          type="button"
          className="mt-2 font-semibold text-dusk underline underline-offset-4"
          onClick={() => setMost(most + 200)}
        >
          {t('line.earlier', { count: events.length - most })}
        </button>
      )}
    </section>
  )
}
