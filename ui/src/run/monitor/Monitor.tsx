import { memo, useEffect, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { answersIn } from '../../rules/answers'
import { PollCard } from '../../polls/PollCard'
import { Thumbnail } from '../../frame/paint/Thumbnail'
import { Workplace } from '../../frame/Workplace'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { useNow } from '../../kit/hooks/useNow'
import { workKey, type Staff } from '../../wire/lesson'
import type { Shown } from '../../wire/sheets'
import { isRemoved } from '../../rules/standing'
import type { Element, Frame, Front } from '../../wire/types.gen'
import { useCalmState } from '../../wire/useCalm'
import { useLessonState } from '../../wire/useLesson'
import { useStaffLesson } from '../../wire/useStaff'
import { ago } from '../../words/words'
import { ClearMenu } from '../stage/ClearMenu'
import { Spread } from '../stage/Spread'
import { StackButton } from '../stage/StackButton'
import { groupParts, marksBy, studentParts, type Marks, type Part } from './parts'
import { Moderate } from '../stage/Moderate'

type Props = {
  frame: Frame
  staff: Staff
  /** Which part is open large: its key, or a student in it. */
  large: string | null
  onLarge: (part: string | null) => void
  /** Opens the front screen's panel, with what it may show. */
  onFront: (show: Front) => void
}

/** All work on a frame as live small pictures, by student or by group; one opens large. */
export function Monitor({ frame, staff, large, onLarge, onFront }: Props) {
  const { t } = useTranslation()
  const people = useLessonState((s) => s.people)
  const sheets = useCalmState((s) => s.sheets, TILES_MS)
  const grouped = frame.arrangement === 'groups'
  const byPart = useMarks(sheets, frame.id, grouped ? 'owner' : 'author')
  const parts = useMemo(
    () => (grouped ? groupParts(staff.state.groups ?? [], people, byPart, t) : studentParts(people, frame.arrangement)),
    [grouped, staff.state.groups, people, byPart, t, frame.arrangement],
  )
  const lesson = useStaffLesson()
  const opened = parts.find((p) => large && (p.key === large || p.authors.includes(large)))
  const looksAt = opened?.authors.join(' ') ?? ''
  useEffect(() => {
    for (const student of looksAt.split(' ')) lesson.looked(student)
  }, [lesson, looksAt])
  if (parts.length === 0) {
    return (
      <p className="m-auto max-w-md p-8 text-center text-lg text-slate">
        {t(grouped && people.size > 0 ? 'run.noGroups' : 'run.noOneYet')}
      </p>
    )
  }
  return (
    <>
      <ul
        className={`grid min-h-0 grow auto-rows-min gap-3 overflow-auto p-3 ${grouped ? 'grid-cols-[repeat(auto-fill,minmax(260px,1fr))]' : 'grid-cols-[repeat(auto-fill,minmax(168px,1fr))]'}`}
      >
        {parts.map((part) => (
          <Tile key={part.key} part={part} frame={frame} marks={byPart.get(part.key) ?? nothing} onOpen={onLarge} />
        ))}
      </ul>
      {opened && (
        <Dialog
          wide
          open
          onOpenChange={() => onLarge(null)}
          title={t(grouped ? 'run.groupFrame' : 'run.studentFrame', opened)}
          text={opened.members}
        >
          <Large
            part={opened}
            frame={frame}
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

const nothing: readonly Element[] = []
/** How often the small pictures look for what is new. */
const TILES_MS = 100

const useMarks = (sheets: Shown[], frame: string, by: 'author' | 'owner'): Marks =>
  useMemo(() => marksBy(sheets, frame, by), [sheets, frame, by])

type TileProps = { part: Part; frame: Frame; marks: readonly Element[]; onOpen: (part: string) => void }

const samePart = (a: Part, b: Part) => a.name === b.name && a.members === b.members && a.here === b.here

const Tile = memo(
  OneTile,
  (a, b) =>
    a.marks === b.marks &&
    a.frame === b.frame &&
    a.onOpen === b.onOpen &&
    a.part.key === b.part.key &&
    samePart(a.part, b.part),
)

function OneTile({ part, frame, marks, onOpen }: TileProps) {
  const { t } = useTranslation()
  const now = useNow()
  const at = useLessonState((s) => Math.max(0, ...part.authors.map((id) => s.work.get(workKey(id, frame.id))?.at ?? 0)))
  const amount = t('run.amount', { count: marks.length })
  const last = at === 0 ? '' : (ago(at, now) ?? t('run.lastNow'))
  const { name, members, here } = part
  return (
    <li>
      <button
        type="button"
        onClick={() => onOpen(part.key)}
        aria-label={t(members ? 'run.openGroup' : 'run.openLarge', { name, amount, last })}
        className="block w-full overflow-hidden rounded-xl border border-line bg-paper text-start hover:border-dusk"
      >
        <Thumbnail
          frame={frame}
          marks={marks}
          width={members ? 320 : 200}
          label={t(members ? 'run.groupFrame' : 'run.studentFrame', { name })}
        />
        <span className="block border-t border-line px-2.5 py-1.5">
          <span className={`block truncate font-semibold ${here ? '' : 'text-slate'}`}>{name}</span>
          {members && <span className="block truncate text-[13px]">{members}</span>}
          <span className="flex justify-between gap-2 text-[13px] text-slate">
            <span>{amount}</span>
            <span className="truncate">{here ? last : t('run.gone')}</span>
          </span>
        </span>
      </button>
    </li>
  )
}

type LargeProps = { part: Part; frame: Frame; onFront: () => void }

function Large({ part, frame, onFront }: LargeProps) {
  const { t } = useTranslation()
  const sheets = useLessonState((s) => s.sheets)
  const sheet = sheets.find((s) => s.frame === frame.id && s.owner === part.owner)
  // Of the class's frame only what one student made; else all that lies on the frame, also the teacher's.
  const shared = frame.arrangement === 'class'
  const marks = useMemo(() => {
    const all = shared ? sheets.filter((s) => s.frame === frame.id).flatMap((s) => s.marks) : (sheet?.marks ?? nothing)
    return all.filter((m) => !isRemoved(m) && (!shared || m.author === part.key))
  }, [sheets, sheet?.marks, shared, frame.id, part.key])
  const polls = useLessonState((s) => s.staff?.state.polls)
  return (
    <div className="flex h-[72vh] flex-col">
      <Workplace
        frame={frame}
        sheet={sheet?.sheet ?? null}
        marks={marks.filter((m) => m.kind !== 'answer')}
        me="staff"
        mayAdd={sheet !== undefined}
        poll={(mark) => (
          <PollCard
            mark={mark}
            phase="closed"
            chosen={answersIn(marks, mark.id, polls?.[mark.id]?.round ?? 1)[0]}
            onFrame
          />
        )}
        more={(selected) =>
          sheet &&
          (selected ? (
            <Moderate mark={selected} sheet={sheet.sheet} />
          ) : (
            <>
              <StackButton />
              {!frame.layout.columns?.length && <Spread sheet={sheet.sheet} marks={marks} />}
              <ClearMenu sheet={sheet.sheet} marks={marks} />
              {!shared && <Button onClick={onFront}>{t('front.this')}</Button>}
            </>
          ))
        }
      />
    </div>
  )
}
