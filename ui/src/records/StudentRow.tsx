import { useQuery } from '@tanstack/react-query'
import { Check, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation } from 'react-router'
import { nameKey } from '../frame/marks/useMark'
import { textOf } from '../frame/paint/geometry'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { GridGiven } from '../grid/GridGiven'
import { Button } from '../kit/Button'
import { LevelBadge } from '../kit/LevelBadge'
import { Face } from '../kit/people'
import { Refusal } from '../kit/Refusal'
import { Listen } from '../polls/sound/Listen'
import { marksOf } from '../rules/answers'
import { isHidden } from '../rules/standing'
import { call, codeOf } from '../wire/http'
import type { Element, Frame, Kept, OnFrame, WorkJudged } from '../wire/types.gen'
import { whenAt } from '../words/words'

type RowProps = {
  session: string
  student: Kept
  frames: Frame[]
  /** What one thinks of their work oneself. */
  judged: WorkJudged[]
  /** There is a class list, and nobody has said which student this is. */
  unknown: boolean
  /** When their work was given back, in milliseconds since 1970; and giving it, or taking it back, where one may. */
  given?: number
  onGive?: (undo: boolean) => void
  onWho: () => void
}

/** How far below the screen what a student left is read already. */
const NEAR = { rootMargin: '1200px' }

/** What a student left, once it comes into sight. */
function useKept(session: string, student: string, sought: boolean) {
  const row = useRef<HTMLLIElement>(null)
  const [near, come] = useState(sought)
  useEffect(() => {
    if (near || !row.current) return
    const watch = new IntersectionObserver((all) => all.some((e) => e.isIntersecting) && come(true), NEAR)
    watch.observe(row.current)
    return () => watch.disconnect()
  }, [near])
  useEffect(() => {
    if (sought) row.current?.scrollIntoView()
  }, [sought])
  const kept = useQuery({
    queryKey: ['record', session, student],
    queryFn: () => call<Kept>('GET', `/sessions/${session}/record/${student}`),
    enabled: near,
  })
  return { row, kept }
}

/** What one student left, frame by frame. */
export function StudentRow({ session, student, frames, judged, unknown, given, onGive, onWho }: RowProps) {
  const { t } = useTranslation()
  const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
  const whole = judged.find((j) => !j.frame && !j.criterion)
  const sought = decodeURIComponent(useLocation().hash.slice(1)).startsWith(`${student.id}.`)
  const { row, kept } = useKept(session, student.id, sought)
  return (
    <li ref={row} className="rounded-2xl border border-line bg-paper p-4">
      <h3 className="mb-3 flex flex-wrap items-center gap-2.5 text-lg">
        <Face id={student.id} name={student.name} />
        {student.name}
        {whole?.level && <LevelBadge level={whole.level} />}
        {unknown && (
          <Button className="text-base" onClick={onWho}>
            {t('whoIs.open', { name: student.name })}
          </Button>
        )}
        {onGive && (
          <span className="ms-auto flex items-center gap-2 text-base">
            {given !== undefined && (
              <span className="text-sm text-slate">{t('marking.givenAt', { when: whenAt(given) })}</span>
            )}
            <a
              href={`/api/sessions/${session}/letters.pdf?student=${student.id}&zone=${zone}`}
              download
              aria-label={t('marking.letterOf', student)}
              className="inline-flex items-center gap-2 rounded-lg px-3 py-1.5 font-semibold whitespace-nowrap text-slate hover:bg-mist hover:text-night"
            >
              {t('marking.letter')}
            </a>
            <Button
              look="quiet"
              aria-label={t(given === undefined ? 'marking.giveTo' : 'marking.undoOf', student)}
              onClick={() => onGive(given !== undefined)}
            >
              {t(given === undefined ? 'marking.giveOne' : 'marking.undo')}
            </Button>
          </span>
        )}
      </h3>
      {kept.isError && <Refusal code={codeOf(kept.error)} />}
      {!kept.data && !kept.isError && <p className="min-h-64 text-slate">{t('loading')}</p>}
      <ol className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        {kept.data?.frames.map((on, i) => (
          <FrameCard
            key={on.frame}
            on={on}
            frame={frames[i]!}
            id={`${student.id}.${on.frame}`}
            n={i + 1}
            name={student.name}
            judged={judged.filter((j) => j.frame === on.frame && !j.mark)}
          />
        ))}
      </ol>
    </li>
  )
}

/** How long a part is kept in sight while others above it come in. */
const STAYS_MS = 6000

/** Brings a part into sight, and again when the page above it grows, until somebody scrolls. */
function stayAt(id: string): () => void {
  const show = () => document.getElementById(id)?.scrollIntoView({ block: 'center' })
  const watch = new ResizeObserver(show)
  const events = ['wheel', 'touchstart', 'pointerdown', 'keydown'] as const
  const stop = () => {
    clearTimeout(timer)
    watch.disconnect()
    for (const e of events) removeEventListener(e, stop)
  }
  const timer = setTimeout(stop, STAYS_MS)
  for (const e of events) addEventListener(e, stop, { passive: true })
  watch.observe(document.getElementById('root')!.firstElementChild ?? document.body)
  return stop
}

type FrameProps = { on: OnFrame; frame: Frame; id: string; n: number; name: string; judged: WorkJudged[] }

function FrameCard({ on, frame, id, n, name, judged: all }: FrameProps) {
  const { t } = useTranslation()
  const judged = all.find((j) => !j.criterion)
  const grid = all.flatMap((j) => (j.criterion && j.level ? [j.level] : []))
  // A search leads here.
  const sought = decodeURIComponent(useLocation().hash.slice(1)) === id
  useEffect(() => (sought ? stayAt(id) : undefined), [sought, id])
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
      {grid.length > 0 && <GridGiven levels={grid} />}
      {judged?.voice && <Listen sound={judged.voice} />}
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
            marks={[...on.marks, ...marksOf(on.answers), ...(judged?.ink ?? [])]}
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
