import { ChevronLeft, ChevronRight, Table2 } from 'lucide-react'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { Button } from '../../kit/Button'
import { Logo } from '../../kit/Logo'
import { Refusal } from '../../kit/Refusal'
import { ToSignIn } from '../../kit/ToSignIn'
import { inField } from '../../kit/hooks/inField'
import { useTitle } from '../../kit/hooks/useTitle'
import { call, codeOf } from '../../wire/http'
import type { RecordReply } from '../../wire/types.gen'
import { AboutMark } from './AboutMark'
import { EditGrid } from './EditGrid'
import { GridJudge } from './GridJudge'
import { InkLayer, InkTools } from './Ink'
import { Judge } from './Judge'
import { Rooms } from './Rooms'
import { useMarking } from './useMarking'
import { useTurn } from './useTurn'
import { Work } from './Work'

/** Work judged in a row: all students' first frame, then the second, by keys alone if one likes. */
export function Marking() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  useTitle(t('marking.title'))
  const kept = useQuery({
    queryKey: ['record', session],
    queryFn: () => call<RecordReply>('GET', `/sessions/${session}/record`),
  })
  const marking = useMarking(session)
  const words = useRef<HTMLTextAreaElement>(null)
  const record = kept.data?.record
  const frames = record?.board.frames ?? []
  const turn = useTurn(record, marking)
  const { frame, grid, student, room } = turn
  const piece = student && { student: student.id, frame }
  const said = piece ? marking.mine(piece) : {}
  const others = piece ? marking.others(piece) : []

  /** To which criterion of the grid the keys give a level; after the last one, to the piece as a whole. */
  const [row, setRow] = useState(0)
  const [drawing, draw] = useState(false)
  const [editing, edit] = useState(false)
  const on = grid[row]?.id
  const down = (from: number) => setRow(Math.min(from + 1, grid.length))
  function sayOn(criterion: string | undefined, level: number | undefined) {
    if (piece) marking.say({ ...piece, criterion }, { level })
  }
  function step(by: 1 | -1) {
    setRow(0)
    turn.step(by)
  }
  const key = useEffectEvent((e: KeyboardEvent) => {
    if (e.altKey || e.metaKey || !student || editing) return
    if (e.ctrlKey ? e.key === 'Enter' : !inField(e.target) && e.key === 'ArrowRight') step(1)
    else if (e.ctrlKey || inField(e.target)) {
      if (e.key === 'Escape') (e.target as HTMLElement).blur()
      return
    } else if (e.key === 'ArrowLeft') step(-1)
    else if (e.key === 'c') words.current?.focus()
    else if (e.key === 'p' && frame) draw(!drawing)
    else if (e.key === 'ArrowDown' && grid.length > 0) down(row)
    else if (e.key === 'ArrowUp' && grid.length > 0) setRow(Math.max(0, row - 1))
    else if (e.key === '0') sayOn(on, undefined)
    else {
      const level = Number(e.key) - 1
      if (!marking.data?.scale[level]) return
      sayOn(on, level)
      down(row)
    }
    e.preventDefault()
  })
  // What the keys judge now is in sight, however many criteria there are.
  useEffect(() => {
    document.querySelector('[data-part=judged-now]')?.scrollIntoView({ block: 'nearest' })
  }, [row])
  useEffect(() => {
    addEventListener('keydown', key)
    return () => removeEventListener('keydown', key)
  }, [])

  const problem = marking.problem ?? (kept.isError ? codeOf(kept.error) : null)
  if (problem === 'sign-in-needed') return <ToSignIn />
  return (
    <div className="flex min-h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <Link to={`/records/${session}`} className="font-semibold text-dusk underline underline-offset-4">
          {t('marking.toRecord')}
        </Link>
        <h1 className="min-w-0 truncate text-xl">{t('marking.of', { title: kept.data?.session.title ?? '' })}</h1>
      </header>
      <main className="mx-auto flex w-full max-w-7xl grow flex-col gap-4 p-5">
        {problem === 'unavailable' && marking.unsaved > 0 ? (
          <p role="alert" className="rounded-lg bg-amber-soft px-3 py-2 text-night">
            {t('marking.waits')}
          </p>
        ) : (
          <Refusal code={problem} />
        )}
        {(!record || !marking.data) && !problem && <p role="status">{t('loading')}</p>}
        {record && marking.data && (
          <>
            <Rooms
              rooms={turn.rooms}
              room={room}
              onGo={(to) => {
                setRow(0)
                turn.go(to)
              }}
            />
            {!student ? (
              <p className="text-slate">{t('marking.noWork')}</p>
            ) : (
              <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
                <section
                  aria-label={t('marking.work', { name: student.name })}
                  className="flex min-w-0 flex-col gap-3 self-start lg:sticky lg:top-3"
                >
                  <div className="flex flex-wrap items-center gap-3">
                    <h2 className="min-w-40 flex-1 text-2xl break-words">
                      <bdi>{student.name}</bdi>
                    </h2>
                    <p role="status" className="text-slate tabular-nums">
                      {t('marking.progress', { n: turn.at + 1, ...turn.rooms.find((r) => r.id === room)! })}
                    </p>
                    <span className="min-w-16 text-sm text-slate" aria-live="off">
                      {t(marking.unsaved > 0 ? 'saved.saving' : 'saved.saved')}
                    </span>
                    {/* Together in one place, however long a name is. */}
                    <span className="flex shrink-0 gap-3">
                      <Button onClick={() => step(-1)} aria-keyshortcuts="ArrowLeft">
                        <ChevronLeft size={17} aria-hidden="true" className="rtl:-scale-x-100" />
                        {t('marking.before')}
                      </Button>
                      <Button look="main" onClick={() => step(1)} aria-keyshortcuts="ArrowRight">
                        {t('marking.next')}
                        <ChevronRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
                      </Button>
                    </span>
                  </div>
                  {frame && (
                    <InkTools
                      ink={said.ink ?? []}
                      drawing={drawing}
                      onDrawing={() => draw(!drawing)}
                      onInk={(ink) => marking.say(piece!, { ink })}
                    />
                  )}
                  <Work
                    key={`${student.id} ${room}`}
                    student={student}
                    frames={frames}
                    frame={frame}
                    about={(of, mark, text) => (
                      <AboutMark
                        what={text}
                        scale={marking.data!.scale}
                        said={marking.mine({ student: student.id, frame: of, mark })}
                        onSay={(to) => marking.say({ student: student.id, frame: of, mark }, to)}
                      />
                    )}
                    over={
                      <InkLayer
                        ink={said.ink ?? []}
                        others={others.flatMap((o) => o.ink ?? [])}
                        drawing={drawing}
                        onInk={(ink) => marking.say(piece!, { ink })}
                      />
                    }
                  />
                  {/* The next one is painted, and its pictures are here, before it is looked at. */}
                  {turn.next && (
                    <div aria-hidden="true" inert className="h-0 overflow-hidden">
                      <Work student={turn.next} frames={frames} frame={frame} />
                    </div>
                  )}
                </section>
                <Judge
                  key={`${student.id} ${room}`}
                  session={session}
                  scale={marking.data.scale}
                  said={said}
                  others={others}
                  names={marking.data.names}
                  phrases={marking.data.phrases}
                  words={words}
                  onSay={(to) => marking.say(piece!, to)}
                  on={grid.length > 0 && on === undefined}
                  grid={
                    <section aria-label={t('marking.editGrid')}>
                      <GridJudge
                        grid={grid}
                        scale={marking.data.scale}
                        on={on}
                        said={(criterion) => marking.mine({ ...piece!, criterion })}
                        others={(criterion) => marking.others({ ...piece!, criterion })}
                        names={marking.data.names}
                        onSay={(criterion, level) => {
                          sayOn(criterion, level)
                          if (level !== undefined) down(grid.findIndex((c) => c.id === criterion))
                        }}
                        gone={marking.gone(piece!, grid)}
                      />
                      <Button look="quiet" onClick={() => edit(true)}>
                        <Table2 size={17} aria-hidden="true" />
                        {t('marking.editGrid')}
                      </Button>
                      <p role="status" className="sr-only">
                        {on && t('grid.now', { name: grid[row]!.name })}
                      </p>
                    </section>
                  }
                />
              </div>
            )}
            <p className="text-sm text-slate">
              {t('marking.keys', { n: marking.data.scale.length })} {grid.length > 0 && t('marking.keysGrid')}
            </p>
            {editing && (
              <EditGrid
                session={session}
                frame={frames.find((f) => f.id === frame)}
                criteria={grid}
                scale={marking.data.scale}
                frames={frames}
                onClose={() => edit(false)}
              />
            )}
          </>
        )}
      </main>
    </div>
  )
}
