import { Image, MessageSquare, Pencil, ThumbsUp, Trash2, Undo2 } from 'lucide-react'
import { useEffect, useEffectEvent, useId, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { hueOf } from '../kit/people'
import { columnOf, inOrder, type Note } from '../rules/columns'
import { Replies } from '../frame/Replies'
import { replied } from '../frame/useCounts'
import type { Reply } from '../rules/pieces'
import { beneath } from '../rules/stacks'
import { isHidden, isRemoved } from '../rules/standing'
import type { Column, Element, Frame, Order } from '../wire/types.gen'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'
import '../words/windows'

/** How many cards are shown until more are asked for. */
const AT_ONCE = 40

/** What somebody is writing, by sheet: it stays when they look at the picture of the frame meanwhile. */
const drafts = new Map<string, { text: string; column: string }>()

type Props = {
  frame: Frame
  sheet: string
  marks: readonly Element[]
  me: string
  mayAdd: boolean
  onPicture: () => void
  /** What stands above all: the polls of the frame. */
  children: ReactNode
}

/** A frame made for notes, on a phone: a place to write, one's own notes, then those of the others as cards. */
export default function Reading({ frame, sheet, marks, me, mayAdd, onPicture, children }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useLessonState((s) => s.people)
  const canUndo = useLessonState((s) => s.canUndo.has(sheet))
  const [order, setOrder] = useState<Order>('')
  const [shown, setShown] = useState(AT_ONCE)
  const stays = useRef(false)
  const columns = frame.layout.columns ?? []
  const notes = useMemo(
    () => marks.filter((m): m is Note => m.kind === 'note' && !isRemoved(m) && !isHidden(m)),
    [marks],
  )
  const nameOf = (author: string | undefined) =>
    author === 'staff' ? t('frame.teacher') : (people.get(author ?? '')?.name ?? t('frame.somebody'))
  const mine = inOrder({}, notes, nameOf).filter((m) => m.author === me)
  const stacks = beneath(notes)
  const lower = new Set([...stacks.values()].flat().map((m) => m.id))
  const others = inOrder({ order }, notes, nameOf).filter((m) => m.author !== me && !lower.has(m.id))
  if (order === '') others.reverse() // the newest first
  const replies = marks.filter((m): m is Reply => m.kind === 'reply' && !isRemoved(m))
  const under = (m: Note) =>
    (frame.replies || replied(replies, m.id).length > 0) && (
      <Under count={replied(replies, m.id).length}>
        <Replies
          note={m}
          replies={replied(replies, m.id)}
          sheet={sheet}
          me={me}
          may={mayAdd && (frame.replies ?? false)}
          nameOf={nameOf}
        />
      </Under>
    )
  const heading = (m: Note) => (columns.length > 1 ? titleOf(columns[columnOf(columns, m)]!, columns, t) : '')
  return (
    <div data-part="reading" className="flex min-h-0 grow flex-col gap-4 overflow-auto p-4">
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() => {
            stays.current = true
            onPicture()
          }}
        >
          <Image size={18} aria-hidden="true" />
          {t('reading.picture')}
        </Button>
        {canUndo && (
          <Button onClick={() => lesson.undo(sheet)}>
            <Undo2 size={18} aria-hidden="true" />
            {t('reading.undo')}
          </Button>
        )}
      </div>
      {children}
      {mayAdd && <Writer key={sheet} sheet={sheet} columns={columns} stays={stays} />}
      {mine.length > 0 && (
        <section aria-label={t('reading.mine')}>
          <h2 className="mb-2 text-lg">{t('reading.mine')}</h2>
          <ul className="flex flex-col gap-3">
            {mine.map((m) => (
              <OwnCard key={m.id} note={m} sheet={sheet} heading={heading(m)} may={mayAdd}>
                {under(m)}
              </OwnCard>
            ))}
          </ul>
        </section>
      )}
      <section aria-label={t('reading.others')}>
        <div className="mb-2 flex items-center justify-between gap-2">
          <h2 className="text-lg">{t('reading.others')}</h2>
          <select
            aria-label={t('list.order')}
            value={order}
            onChange={(e) => setOrder(e.target.value as Order)}
            className="min-h-11 rounded-lg border border-edge bg-paper px-2"
          >
            <option value="">{t('reading.newest')}</option>
            <option value="agreed">{t('list.by_agreed')}</option>
          </select>
        </div>
        {others.length === 0 && <p className="text-slate">{t('reading.none')}</p>}
        <ul className="flex flex-col gap-3">
          {others.slice(0, shown).map((m) => (
            <li key={m.id} className="rounded-xl border border-line bg-paper p-3 shadow-sm">
              <Top name={nameOf(m.author)} author={m.author ?? ''} heading={heading(m)} />
              <p dir="auto" className="text-lg break-words whitespace-pre-wrap">
                {m.note.text}
              </p>
              {stacks.has(m.id) && (
                <p className="mt-1 text-slate">
                  {t('stack.also', {
                    names: stacks
                      .get(m.id)!
                      .map((o) => nameOf(o.author))
                      .join(', '),
                  })}
                </p>
              )}
              <Agree note={m} sheet={sheet} me={me} />
              {under(m)}
            </li>
          ))}
        </ul>
        {others.length > shown && (
          <Button className="mt-3 w-full" size="large" onClick={() => setShown(shown + AT_ONCE)}>
            {t('reading.more', { count: others.length - shown })}
          </Button>
        )}
      </section>
    </div>
  )
}

type Say = (key: string, of?: Record<string, unknown>) => string

const titleOf = (c: Column, columns: readonly Column[], t: Say) =>
  c.title || t('columns.untitled', { n: columns.indexOf(c) + 1 })

function Top({ name, author, heading }: { name: string; author: string; heading: string }) {
  return (
    <p className="mb-1 flex items-center justify-between gap-2 text-sm">
      <span className={`truncate rounded-md px-2 py-0.5 font-semibold text-paper ${hueOf(author)}`}>{name}</span>
      <span dir="auto" className="truncate text-slate">
        {heading}
      </span>
    </p>
  )
}

type WriterProps = { sheet: string; columns: readonly Column[]; stays: RefObject<boolean> }

/**
 * A large field to write in, and in which column it will stand. What is begun when
 * the class goes elsewhere is added, as a note on a frame is; it stays here for a
 * look at the picture of the frame.
 */
function Writer({ sheet, columns, stays }: WriterProps) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const id = useId()
  const [draft, setDraft] = useState(drafts.get(sheet) ?? { text: '', column: columns[0]?.id ?? '' })
  const chosen = columns.find((c) => c.id === draft.column) ?? columns[0]
  const change = (to: Partial<typeof draft>) => {
    drafts.set(sheet, { ...draft, ...to })
    setDraft({ ...draft, ...to })
  }
  function add() {
    if (draft.text.trim() === '') return
    const note = { text: draft.text, tint: 'apricot' as const, column: chosen?.id }
    lesson.do(sheet, {
      kind: 'add',
      add: { mark: uuidv7(), x: 40, y: 160, w: 300, h: 120, free: true, kind: 'note', note },
    })
    change({ text: '' })
  }
  const leave = useEffectEvent(() => {
    if (!stays.current) add()
  })
  useEffect(() => () => leave(), [])
  return (
    <section aria-labelledby={id} className="rounded-xl border border-edge bg-paper p-3">
      <h2 id={id} className="mb-2 text-lg">
        {t('reading.write')}
      </h2>
      {columns.length > 1 && (
        <fieldset className="mb-2">
          <legend className="sr-only">{t('reading.where')}</legend>
          <div className="flex flex-wrap gap-2">
            {columns.map((c) => (
              <label
                key={c.id}
                className={`relative flex min-h-11 cursor-pointer items-center rounded-full border px-4 has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${c === chosen ? 'border-dusk bg-dusk-soft font-semibold text-dusk' : 'border-edge text-night'}`}
              >
                <input
                  type="radio"
                  name={`${id}-column`}
                  className="sr-only"
                  checked={c === chosen}
                  onChange={() => change({ column: c.id })}
                />
                {titleOf(c, columns, t)}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {chosen?.prompt && (
        <p dir="auto" className="mb-2 text-slate">
          {chosen.prompt}
        </p>
      )}
      <textarea
        aria-label={t('reading.write')}
        dir="auto"
        rows={3}
        maxLength={600}
        value={draft.text}
        onChange={(e) => change({ text: e.target.value })}
        className="w-full rounded-lg border border-edge bg-note-apricot p-3 text-lg text-night"
      />
      <Button look="main" size="large" className="mt-2 w-full" disabled={draft.text.trim() === ''} onClick={add}>
        {t('reading.add')}
      </Button>
    </section>
  )
}

/** What was answered to a note, once it is asked for. */
function Under({ count, children }: { count: number; children: ReactNode }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <div className="flex flex-col gap-2">
      <button
        type="button"
        aria-expanded={open}
        className="inline-flex min-h-11 items-center gap-1.5 self-start rounded-lg px-2 font-semibold text-slate hover:bg-mist"
        onClick={() => setOpen(!open)}
      >
        <MessageSquare size={18} aria-hidden="true" />
        {t('replies.title')}
        {count > 0 && ` · ${count}`}
      </button>
      {open && children}
    </div>
  )
}

type OwnProps = { note: Note; sheet: string; heading: string; may: boolean; children: ReactNode }

/** A note of one's own: read, changed, removed. */
function OwnCard({ note, sheet, heading, may, children }: OwnProps) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [text, setText] = useState<string | null>(null)
  const agreed = note.agreed?.length ?? 0
  const small = 'inline-flex min-h-11 items-center gap-1.5 rounded-lg px-2 font-semibold text-dusk hover:bg-mist'
  function save() {
    if (text !== null && text.trim() !== '' && text !== note.note.text)
      lesson.do(sheet, { kind: 'set', set: { mark: note.id, text } })
    setText(null)
  }
  const leave = useEffectEvent(save)
  useEffect(() => () => leave(), [])
  return (
    <li className="rounded-xl border border-line bg-note-apricot p-3 text-night shadow-sm">
      {heading && (
        <p dir="auto" className="truncate text-sm text-slate">
          {heading}
        </p>
      )}
      {text === null ? (
        <p dir="auto" className="text-lg break-words whitespace-pre-wrap">
          {note.note.text}
        </p>
      ) : (
        <textarea
          aria-label={t('reading.change')}
          dir="auto"
          rows={3}
          maxLength={600}
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="w-full rounded-lg border border-edge bg-paper p-2 text-lg"
        />
      )}
      <div className="mt-1 flex flex-wrap items-center gap-1">
        {agreed > 0 && <span className="me-2 text-slate">{t('marks.agreed', { count: agreed })}</span>}
        {may && text === null && (
          <>
            <button type="button" className={small} onClick={() => setText(note.note.text)}>
              <Pencil size={17} aria-hidden="true" />
              {t('reading.change')}
            </button>
            <button
              type="button"
              className={small}
              onClick={() => lesson.do(sheet, { kind: 'remove', remove: { mark: note.id } })}
            >
              <Trash2 size={17} aria-hidden="true" />
              {t('reading.remove')}
            </button>
          </>
        )}
        {text !== null && (
          <button type="button" className={small} onClick={save}>
            {t('reading.save')}
          </button>
        )}
      </div>
      {children}
    </li>
  )
}

/** Says that one means the same, or takes that back. */
function Agree({ note, sheet, me }: { note: Note; sheet: string; me: string }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const yes = note.agreed?.includes(me) ?? false
  return (
    <button
      type="button"
      aria-pressed={yes}
      className={`mt-1 inline-flex min-h-11 items-center gap-1.5 rounded-lg px-2 font-semibold hover:bg-mist ${yes ? 'text-dusk' : 'text-slate'}`}
      onClick={() => lesson.do(sheet, { kind: 'agree', agree: { mark: note.id, yes: !yes } })}
    >
      <ThumbsUp size={18} aria-hidden="true" className={yes ? 'fill-dusk-soft' : ''} />
      {t('reading.agree')}
      {note.agreed?.length ? ` · ${note.agreed.length}` : ''}
    </button>
  )
}
