import { useCallback, useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import type { Staff } from '../../wire/lesson'
import type { Shown } from '../../wire/sheets'
import type { Element, Frame, Front } from '../../wire/types.gen'
import { useCalmState } from '../../wire/hooks/useCalm'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import type { Gallery } from '../gallery/stops'
import { Compare, MOST } from './Compare'
import { Large } from './Large'
import { everything, inPlaces, PAGE, passes, placed, type Filter, type Order } from './order'
import { groupParts, marksBy, studentParts, type Marks } from './parts'
import { Tile } from './Tile'
import { sizes, Tools, type Size } from './Tools'

type Props = {
  frame: Frame
  staff: Staff
  /** Which part is open large: its key, or a student in it. */
  large: string | null
  onLarge: (part: string | null) => void
  /** Opens the front screen's panel, with what it may show. */
  onFront: (show: Front) => void
  /** Goes through some parts on the front screen. */
  onGallery: (gallery: Gallery) => void
}

const nothing: readonly Element[] = []
const noGroups: string[][] = []
/** How often the small pictures look for what is new. */
const TILES_MS = 100
/** How often the states do. */
const CALM_MS = 500

const useMarks = (sheets: Shown[], frame: string, by: 'author' | 'owner'): Marks =>
  useMemo(() => marksBy(sheets, frame, by), [sheets, frame, by])

/** All work on a frame as live small pictures, by student or by group; one opens large, some side by side. */
export function Monitor({ frame, staff, large, onLarge, onFront, onGallery }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const sheets = useCalmState((s) => s.sheets, TILES_MS)
  const next = useCalmState((s) => s.next, CALM_MS)
  const [order, setOrder] = useState<{ by: Order; places: string[] }>({ by: 'name', places: [] })
  const [filter, setFilter] = useState<Filter>(everything)
  const [size, setSize] = useState<Size>('small')
  const [page, setPage] = useState(0)
  const [chosen, setChosen] = useState<string[]>([])
  const [comparing, compare] = useState(false)
  const grouped = frame.arrangement === 'groups'
  const groups = staff.state.groups ?? noGroups
  const seats = useMemo(() => {
    const here = new Map([...people.values()].map((p) => [p.student, p.id]))
    return (staff.seats ?? []).flatMap((student) => here.get(student) ?? [])
  }, [people, staff.seats])
  const byPart = useMarks(sheets, frame.id, grouped ? 'owner' : 'author')
  // Students' parts do not depend on what is done on them.
  const alone = useMemo(() => studentParts(people, frame.arrangement), [people, frame.arrangement])
  const together = useMemo(
    () => (grouped ? groupParts(groups, people, byPart, t) : null),
    [grouped, groups, people, byPart, t],
  )
  const parts = together ?? alone
  const states = useMemo(() => new Map(next.map((row) => [row.student, row.state])), [next])
  const shown = useMemo(
    () => inPlaces(parts, order.places).filter((p) => passes(p, filter, states, groups, byPart)),
    [parts, order.places, filter, states, groups, byPart],
  )
  const opened = parts.find((p) => large && (p.key === large || p.authors.includes(large)))
  const looksAt = opened?.authors.join(' ') ?? ''
  useEffect(() => {
    for (const student of looksAt.split(' ')) lesson.looked(student)
  }, [lesson, looksAt])
  const choose = useCallback(
    (key: string) => setChosen((c) => (c.includes(key) ? c.filter((k) => k !== key) : [...c, key])),
    [],
  )
  if (parts.length === 0) {
    return (
      <p className="m-auto max-w-md p-8 text-center text-lg text-slate">
        {t(grouped && people.size > 0 ? 'run.noGroups' : 'run.noOneYet')}
      </p>
    )
  }
  const last = Math.max(0, Math.ceil(shown.length / PAGE) - 1)
  const on = Math.min(page, last)
  // In the order in which they were chosen.
  const side = chosen.flatMap((key) => parts.find((p) => p.key === key) ?? [])
  const wide = grouped ? Math.max(260, sizes[size]) : sizes[size]
  const at = opened ? shown.findIndex((p) => p.key === opened.key) : -1
  return (
    <>
      <Tools
        grouped={grouped}
        groups={groups.length}
        seated={seats.length > 0}
        frames={staff.board.frames}
        frame={frame.id}
        onFrame={(to) => lesson.lookAt(to)}
        order={order.by}
        onOrder={(by) => {
          setOrder({ by, places: placed(parts, by, next, groups, seats) })
          setPage(0)
        }}
        filter={filter}
        onFilter={(to) => {
          setFilter(to)
          setPage(0)
        }}
        size={size}
        onSize={setSize}
        shown={shown.length}
        all={parts.length}
        page={on}
        onPage={setPage}
      />
      {shown.length === 0 && <p className="m-auto p-8 text-lg text-slate">{t('monitor.none')}</p>}
      <ul
        className="grid min-h-0 grow auto-rows-min gap-3 overflow-auto p-3"
        style={{ gridTemplateColumns: `repeat(auto-fill, minmax(min(100%, ${wide}px), 1fr))` }}
      >
        {shown.slice(on * PAGE, (on + 1) * PAGE).map((part) => (
          <Tile
            key={part.key}
            part={part}
            frame={frame}
            marks={byPart.get(part.key) ?? nothing}
            state={grouped ? undefined : states.get(part.key)}
            width={wide}
            chosen={chosen.includes(part.key)}
            onChoose={choose}
            onOpen={onLarge}
          />
        ))}
      </ul>
      {side.length > 0 && (
        <div className="flex items-center gap-3 border-t border-line bg-dusk-soft px-3 py-2">
          <span className="min-w-0 grow truncate">{side.map((p) => p.name).join(', ')}</span>
          <Button look="main" disabled={side.length < 2 || side.length > MOST} onClick={() => compare(true)}>
            {t('monitor.sideBySide')}
          </Button>
          {frame.arrangement !== 'class' && (
            <>
              <Button onClick={() => setChosen(shown.map((p) => p.key))}>{t('monitor.chooseAll')}</Button>
              <Button
                onClick={() => {
                  onGallery({ frame: frame.id, stops: side.map(({ owner, name }) => ({ owner, name })) })
                  setChosen([])
                }}
              >
                {t('gallery.title')}
              </Button>
            </>
          )}
          <Button onClick={() => setChosen([])}>{t('monitor.chooseNone')}</Button>
        </div>
      )}
      {comparing && side.length > 1 && (
        <Compare
          parts={side}
          frame={frame}
          marks={byPart}
          onClose={() => compare(false)}
          onFront={
            frame.arrangement === 'class'
              ? undefined
              : () => {
                  compare(false)
                  onFront({ kind: 'sheets', frame: frame.id, owners: side.map((p) => p.owner) })
                }
          }
        />
      )}
      {opened && (
        <Dialog
          wide
          open
          onOpenChange={() => onLarge(null)}
          backTo={() => document.querySelector<HTMLElement>(`[data-tile="${CSS.escape(opened.key)}"]`)}
          title={t(grouped ? 'run.groupFrame' : 'run.studentFrame', opened)}
          text={opened.members}
        >
          <Large
            part={opened}
            frame={frame}
            at={at + 1}
            of={shown.length}
            onStep={(by) => onLarge(shown[(at + by + shown.length) % shown.length]?.key ?? null)}
            onFront={() => {
              onLarge(null)
              onFront({ kind: 'sheets', frame: frame.id, owners: [opened.owner] })
            }}
          />
        </Dialog>
      )}
    </>
  )
}
