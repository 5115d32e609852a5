import { ChevronLeft, ChevronRight, Footprints } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Remarks, remarksOn } from '../frame/Remarks'
import { Button } from '../kit/Button'
import { useNarrow } from '../kit/hooks/useNarrow'
import { laid } from '../rules/pieces'
import { readsOf } from '../rules/reads'
import { isHidden } from '../rules/standing'
import { FrontFrame } from '../shown/FrontFrame'
import type { Element, Stage, Walking } from '../wire/types.gen'
import { groupOwner } from '../wire/sheets'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'
import { useUntil } from '../wire/hooks/useClock'
import '../words/windows'

const nothing: readonly Element[] = []
const DAY_MS = 24 * 60 * 60 * 1000

/** The class walks along the work of others: one looks at a stop, and may say something about it. */
export default function Walk({ walk, me, group }: { walk: Walking; me: string; group?: number }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [wanted, want] = useState('')
  const [at, setAt] = useState<(Stage & { owner: string }) | null>(null)
  const online = useLessonState((s) => s.network === 'online')
  const people = useLessonState((s) => s.people)
  // Where all are led they are where the teacher is; by oneself one goes on from where one is.
  const owner = walk.own ? (walk.stops.includes(wanted) ? wanted : '') : walk.stops[0]!
  const sheet = useLessonState((s) => s.sheets.find((x) => x.frame === walk.frame && x.owner === at?.owner))
  const gone = at !== null && sheet === undefined
  useEffect(() => {
    if (!online) return
    let left = false
    void lesson.walkTo(owner).then((came) => !left && came && setAt(came))
    return () => {
      left = true
    }
  }, [lesson, owner, walk.frame, online, gone])
  if (!at || !sheet) return <p className="m-auto p-6 text-lg text-slate">{t('loading')}</p>
  const number = walk.own ? walk.stops.indexOf(at.owner) + 1 : (walk.number ?? 1)
  const own = at.owner === me || at.owner === (group ? groupOwner(group) : '')
  const name = at.owner.startsWith('group-')
    ? t('front.group', { n: at.owner.slice(6) })
    : (people.get(at.owner)?.name ?? t('walk.somebody'))
  const to = (by: number) => want(walk.stops[(number - 1 + by + walk.stops.length) % walk.stops.length]!)
  return (
    <section aria-label={t('walk.title')} data-part="walk" className="flex min-h-0 grow flex-col overflow-auto bg-mist">
      <header className="flex flex-wrap items-center gap-2 border-b border-dusk bg-dusk-soft px-4 py-2">
        <Footprints size={18} aria-hidden="true" className="text-dusk" />
        <h2 className="min-w-0 grow truncate font-semibold text-dusk">
          <span role="status">
            {own ? t('walk.own') : t('walk.of', { name })}
            <span className="ms-2 font-normal text-slate tabular-nums">{t('walk.at', { n: number, of: walk.of })}</span>
          </span>
        </h2>
        {walk.own && walk.of > 1 && (
          <span className="flex gap-2">
            <Button onClick={() => to(-1)}>
              <ChevronLeft size={17} aria-hidden="true" className="rtl:-scale-x-100" />
              {t('walk.back')}
            </Button>
            <Button look="main" onClick={() => to(1)}>
              {t('walk.on')}
              <ChevronRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
            </Button>
          </span>
        )}
      </header>
      {walk.own && walk.each ? <MoveOn key={`${at.owner} ${walk.since}`} walk={walk} /> : null}
      <div className="mx-auto grid w-full max-w-7xl items-start gap-3 p-3 lg:grid-cols-[1fr_22rem]">
        <div
          className="aspect-[1.6] max-h-[72dvh] w-full overflow-hidden rounded-xl border border-line bg-paper [container-type:size]"
          aria-hidden="true"
        >
          <FrontFrame key={sheet.sheet} frame={at.frame} sheet={sheet} polls={at.polls} />
        </div>
        <div className="flex min-w-0 flex-col gap-3">
          <Reads marks={sheet.marks} stage={at} />
          <Remarks
            key={sheet.sheet}
            sheet={sheet.sheet}
            remarks={remarksOn(sheet.marks, me)}
            me={me}
            may={Boolean(walk.replies) && !own}
          />
        </div>
      </div>
    </section>
  )
}

/** The words on the work, to be read where the picture is too small, or not seen. */
function Reads({ marks, stage }: { marks: readonly Element[]; stage: Stage }) {
  const { t } = useTranslation()
  const narrow = useNarrow()
  const words = useMemo(() => {
    const { marks: lying, margin } = laid(stage.frame, marks.length > 0 ? marks : nothing)
    return [...lying, ...margin].flatMap((m) => {
      const text = m.author && !isHidden(m) ? readsOf(m)?.trim() : ''
      return text ? [{ id: m.id, text }] : []
    })
  }, [marks, stage.frame])
  if (words.length === 0) return null
  return (
    // On a phone the letters on the frame are too small.
    <details open={narrow} className="rounded-xl border border-line bg-paper px-3 py-2">
      <summary className="cursor-pointer font-semibold">{t('walk.words', { count: words.length })}</summary>
      <ul className="mt-2 flex flex-col gap-1.5">
        {words.map((w) => (
          <li key={w.id} dir="auto" className="border-t border-line pt-1.5 break-words whitespace-pre-wrap">
            {w.text}
          </li>
        ))}
      </ul>
    </details>
  )
}

/** The sign to move on: for all at the same moment, so many seconds after one another. */
function MoveOn({ walk }: { walk: Walking }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  // The clock is asked for, and looked at, as long as something ends.
  useUntil(walk.since + DAY_MS)
  const now = lesson.clock.now()
  const turn = now === null ? null : Math.floor((now - walk.since) / ((walk.each ?? 1) * 1000))
  const [came, setCame] = useState<number | null>(null)
  if (came === null && turn !== null) setCame(turn)
  return (
    <p role="status" className="bg-glow-soft px-4 py-2 text-center text-lg font-semibold text-glow-deep empty:hidden">
      {came !== null && turn !== null && turn > came && t('walk.moveOn')}
    </p>
  )
}
