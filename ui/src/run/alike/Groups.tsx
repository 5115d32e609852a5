import { FolderInput } from 'lucide-react'
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { tintGround } from '../../frame/paint/colours'
import type { AlikeNote } from '../../wire/types.gen'
import { merged, moved, restOf, type Group } from './groups'

const REST = 'rest'

type Props = { groups: Group[]; notes: AlikeNote[]; onChange: (groups: Group[]) => void }

/** The groups side by side: named, split, joined; each note is dragged to another, or sent there by its list. */
export function Groups({ groups, notes, onChange }: Props) {
  const { t } = useTranslation()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }))
  const byId = new Map(notes.map((n) => [n.id, n]))
  const move = (note: string, to: string) => {
    if (to !== 'new') onChange(moved(groups, note, to === REST ? null : to))
    else
      onChange([
        ...moved(groups, note, null),
        { key: note, name: byId.get(note)?.text.slice(0, 48) ?? '', notes: [note], unsure: false },
      ])
  }
  const rest = restOf(notes, groups)
  return (
    <DndContext sensors={sensors} onDragEnd={({ active, over }) => over && move(String(active.id), String(over.id))}>
      <ul className="grid max-h-[58vh] grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3 overflow-auto">
        {groups.map((group) => (
          <Room key={group.key} id={group.key} label={group.name}>
            <input
              aria-label={t('alike.name', { count: group.notes.length })}
              value={group.name}
              maxLength={60}
              onChange={(e) => onChange(groups.map((g) => (g.key === group.key ? { ...g, name: e.target.value } : g)))}
              className="w-full rounded-lg border border-edge bg-paper px-2 py-1 font-semibold"
            />
            <p className="flex items-center justify-between gap-2 text-sm text-slate">
              <span>
                {t('alike.count', { count: group.notes.length })}
                {group.unsure && <span className="text-amber"> · {t('alike.unsure')}</span>}
              </span>
              {groups.length > 1 && (
                <select
                  aria-label={t('alike.join', { name: group.name })}
                  className="max-w-28 rounded-md border border-line bg-paper px-1 py-0.5"
                  value=""
                  onChange={(e) => onChange(merged(groups, group.key, e.target.value))}
                >
                  <option value="">{t('alike.joinWith')}</option>
                  {groups
                    .filter((g) => g.key !== group.key)
                    .map((g) => (
                      <option key={g.key} value={g.key}>
                        {g.name}
                      </option>
                    ))}
                </select>
              )}
            </p>
            {group.notes.map((id) => {
              const note = byId.get(id)
              return note && <Note key={id} note={note} groups={groups} at={group.key} onMove={move} />
            })}
            <Button look="quiet" onClick={() => onChange(groups.filter((g) => g.key !== group.key))}>
              {t('alike.split')}
            </Button>
          </Room>
        ))}
        <Room id={REST} label={t('alike.rest')}>
          <p className="px-1 py-1 font-semibold">{t('alike.restOf', { count: rest.length })}</p>
          {rest.map((note) => (
            <Note key={note.id} note={note} groups={groups} at={REST} onMove={move} />
          ))}
        </Room>
      </ul>
    </DndContext>
  )
}

function Room({ id, label, children }: { id: string; label: string; children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id })
  return (
    <li
      ref={setNodeRef}
      aria-label={label}
      className={`flex min-w-0 flex-col gap-1.5 rounded-xl border p-2 ${isOver ? 'border-dusk bg-dusk-soft' : 'border-line bg-mist'}`}
    >
      {children}
    </li>
  )
}

type NoteProps = { note: AlikeNote; groups: Group[]; at: string; onMove: (note: string, to: string) => void }

function Note({ note, groups, at, onMove }: NoteProps) {
  const { t } = useTranslation()
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: note.id })
  return (
    <div
      ref={setNodeRef}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`flex items-start gap-1 rounded-lg border border-line p-1.5 text-night ${tintGround[note.tint]} ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
    >
      <p dir="auto" {...listeners} className="min-w-0 grow cursor-grab touch-none break-words whitespace-pre-wrap">
        {note.text}
      </p>
      <span className="relative grid size-7 shrink-0 place-items-center rounded-md border border-edge bg-paper text-slate has-focus-visible:outline-3 has-focus-visible:outline-dusk">
        <FolderInput size={15} aria-hidden="true" />
        <select
          aria-label={t('alike.move', { text: note.text })}
          className="absolute inset-0 size-full cursor-pointer opacity-0"
          value={at}
          onChange={(e) => onMove(note.id, e.target.value)}
        >
          {groups.map((g) => (
            <option key={g.key} value={g.key}>
              {g.name}
            </option>
          ))}
          <option value={REST}>{t('alike.rest')}</option>
          <option value="new">{t('alike.new')}</option>
        </select>
      </span>
    </div>
  )
}
