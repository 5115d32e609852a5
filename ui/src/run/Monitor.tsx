import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { PollCard } from '../frame/PollCard'
import { Thumbnail } from '../frame/Thumbnail'
import { Workplace } from '../frame/Workplace'
import { Dialog } from '../kit/Dialog'
import { useNow } from '../kit/useNow'
import { workKey } from '../wire/lesson'
import type { Shown } from '../wire/sheets'
import type { Element, Frame, Person } from '../wire/types.gen'
import { useLessonState } from '../wire/useLesson'
import { ago } from '../words/words'
import { ClearMenu } from './ClearMenu'
import { Moderate } from './Stage'

/** All students' work on a frame as live small pictures; one opens large. */
export function Monitor({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const people = useLessonState((s) => s.people)
  const sheets = useLessonState((s) => s.sheets)
  const [large, setLarge] = useState<string | null>(null)
  const byAuthor = useMemo(() => workByAuthor(sheets, frame.id), [sheets, frame.id])
  const students = [...people.values()].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
  const opened = large ? people.get(large) : undefined
  if (students.length === 0) {
    return <p className="m-auto max-w-md p-8 text-center text-lg text-slate">{t('run.noOneYet')}</p>
  }
  return (
    <>
      <ul className="grid min-h-0 grow auto-rows-min grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-3 overflow-auto p-3">
        {students.map((person) => (
          <Tile
            key={person.id}
            person={person}
            frame={frame}
            marks={byAuthor.get(person.id) ?? nothing}
            onOpen={() => setLarge(person.id)}
          />
        ))}
      </ul>
      {opened && (
        <Dialog wide open onOpenChange={() => setLarge(null)} title={t('run.studentFrame', opened)}>
          <Large person={opened} frame={frame} sheets={sheets} marks={byAuthor.get(opened.id) ?? nothing} />
        </Dialog>
      )}
    </>
  )
}

const nothing: readonly Element[] = []

/** Everybody's marks on a frame, by author; the same list as long as its marks are the same. */
function workByAuthor(sheets: Shown[], frame: string): Map<string, readonly Element[]> {
  const found = new Map<string, Element[]>()
  for (const sheet of sheets) {
    if (sheet.frame !== frame) continue
    for (const mark of sheet.marks) {
      if (mark.removedBy || !mark.author) continue
      const list = found.get(mark.author) ?? []
      list.push(mark)
      found.set(mark.author, list)
    }
  }
  return found
}

type TileProps = { person: Person; frame: Frame; marks: readonly Element[]; onOpen: () => void }

function Tile({ person, frame, marks, onOpen }: TileProps) {
  const { t } = useTranslation()
  const now = useNow()
  const work = useLessonState((s) => s.work.get(workKey(person.id, frame.id)))
  const amount = t('run.amount', { count: marks.length })
  const last = !work?.at ? '' : (ago(work.at, now) ?? t('run.lastNow'))
  return (
    <li>
      <button
        type="button"
        onClick={onOpen}
        aria-label={t('run.openLarge', { name: person.name, amount, last })}
        className="block w-full overflow-hidden rounded-xl border border-line bg-paper text-start hover:border-dusk"
      >
        <Thumbnail frame={frame} marks={marks} width={200} label={t('run.studentFrame', person)} />
        <span className="block border-t border-line px-2.5 py-1.5">
          <span className={`block truncate font-semibold ${person.here ? '' : 'text-slate'}`}>{person.name}</span>
          <span className="flex justify-between gap-2 text-[13px] text-slate">
            <span>{amount}</span>
            <span className="truncate">{person.here ? last : t('run.gone')}</span>
          </span>
        </span>
      </button>
    </li>
  )
}

function Large({
  person,
  frame,
  sheets,
  marks,
}: {
  person: Person
  frame: Frame
  sheets: Shown[]
  marks: readonly Element[]
}) {
  const owner = frame.arrangement === 'individual' ? person.id : 'class'
  const sheet = sheets.find((s) => s.frame === frame.id && s.owner === owner)
  const answer = (poll: string) => marks.find((m) => m.kind === 'answer' && m.answer.poll === poll)
  return (
    <div className="flex h-[72vh] flex-col">
      <Workplace
        frame={frame}
        sheet={sheet?.sheet ?? null}
        marks={marks.filter((m) => m.kind !== 'answer')}
        me="staff"
        mayAdd={sheet !== undefined}
        poll={(mark) => {
          const given = answer(mark.id)
          return (
            <PollCard
              mark={mark}
              phase="closed"
              chosen={given?.kind === 'answer' ? given.answer.choice : undefined}
              onFrame
            />
          )
        }}
        more={(selected) =>
          sheet &&
          (selected ? (
            <Moderate mark={selected} sheet={sheet.sheet} />
          ) : (
            <ClearMenu sheet={sheet.sheet} marks={marks} />
          ))
        }
      />
    </div>
  )
}
