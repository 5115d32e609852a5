import { useId, useRef, useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { useNarrow } from '../kit/useNarrow'
import type { Deed, DeedHere } from '../wire/apply'
import type { Element, Frame, Set as SetProperties, Stroke } from '../wire/types.gen'
import { useLesson, useLessonState } from '../wire/useLesson'
import { FrameView } from './FrameView'
import { freePlace, LINE, NOTE, textOf } from './geometry'
import { draftMark, useHand, type Tool } from './hand'
import { Ledge } from './Ledge'
import { LiveInk } from './LiveInk'
import type { MarkActions } from './Marks'
import { Writing } from './WrittenMark'
import { ZoomButtons } from './ZoomButtons'

type Props = {
  frame: Frame
  /** The sheet that work goes to; null when there is none here. */
  sheet: string | null
  marks: readonly Element[]
  /** Who works here: a participant's id or "staff". */
  me: string
  mayAdd: boolean
  prompt?: boolean
  tool?: Tool
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  /** More on the ledge, for the mark that is selected. */
  more?: (selected: Element | null) => ReactNode
}

/** A frame with its ledge: everything a hand can do on it. */
export function Workplace({ frame, sheet, marks, me, mayAdd, prompt = true, tool, poll, more }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useLessonState((s) => s.people)
  const canUndo = useLessonState((s) => sheet !== null && s.canUndo.has(sheet))
  const canRedo = useLessonState((s) => sheet !== null && s.canRedo.has(sheet))
  const { hand, change } = useHand(tool)
  const middle = useRef<() => { x: number; y: number }>(() => ({ x: 800, y: 500 }))
  const [scale, setScale] = useState(1)
  const narrow = useNarrow()
  const keysHint = useId()
  const works = mayAdd && sheet !== null

  const shown =
    hand.draft && !marks.some((m) => m.id === hand.draft?.id) ? [...marks, draftMark(hand.draft, hand, me)] : marks
  const selected = shown.find((m) => m.id === hand.selected) ?? null
  const mayChange = (mark: Element) =>
    works && mark.kind !== 'answer' && (me === 'staff' || mark.author === me || frame.permission === 'together')
  const deed = (d: DeedHere) => sheet !== null && lesson.do({ ...d, sheet } as Deed)
  const set = (mark: string, properties: Omit<SetProperties, 'mark'>) =>
    deed({ kind: 'set', set: { mark, ...properties } })
  const isDraft = (mark: Element) => hand.draft?.id === mark.id && !marks.some((m) => m.id === mark.id)

  const actions: MarkActions = {
    selected: hand.selected,
    editing: hand.editing,
    touchable: hand.tool === 'move',
    writesElsewhere: narrow,
    keysHint,
    nameOf: (author) =>
      author === me
        ? { name: me === 'staff' ? t('frame.teacher') : (people.get(me)?.name ?? t('frame.you')), mine: true }
        : {
            name: author === 'staff' ? t('frame.teacher') : (people.get(author ?? '')?.name ?? t('frame.somebody')),
            mine: false,
          },
    mayChange,
    onSelect: (id) => change({ selected: id }),
    onEdit: (id) => change({ editing: id, selected: id ?? hand.selected, ...(id ? {} : { draft: null }) }),
    onPlace: (mark, place) => !isDraft(mark) && set(mark.id, place),
    onRemove: (mark) => {
      if (!isDraft(mark)) deed({ kind: 'remove', remove: { mark: mark.id } })
      change({ selected: null, editing: null, draft: null })
    },
    onText: (mark, text) => write(mark, text),
  }

  /** Saves what was written; a note without words is not kept. */
  function write(mark: Element, text: string) {
    const draft = isDraft(mark)
    if (text.trim() === '') {
      if (!draft) actions.onRemove(mark)
      return
    }
    if (!draft) {
      if (text !== textOf(mark)) set(mark.id, { text })
      return
    }
    const { id, x, y, w, h, kind } = mark
    const body =
      kind === 'note'
        ? { kind, note: { ...mark.note, text } }
        : kind === 'text'
          ? { kind, text: { ...mark.text, text } }
          : null
    if (body) deed({ kind: 'add', add: { mark: id, x, y, w, h, ...body } })
  }

  function begin(kind: 'note' | 'text') {
    const [w, h] = kind === 'note' ? [NOTE.width, NOTE.height] : [360, Math.ceil(36 * LINE)]
    const place = freePlace([...frame.fixed, ...shown], w, h, middle.current())
    const id = uuidv7()
    change({ tool: 'move', draft: { kind, id, w, h, ...place }, selected: id, editing: id })
  }

  function drawn(place: { x: number; y: number; w: number; h: number }, stroke: Stroke) {
    deed({ kind: 'add', add: { mark: uuidv7(), ...place, kind: 'stroke', stroke } })
  }

  const changeable = selected && mayChange(selected) && !isDraft(selected) ? selected : null
  const writing = narrow && hand.editing ? shown.find((m) => m.id === hand.editing) : undefined
  return (
    <div className="flex min-h-0 grow flex-col">
      <p id={keysHint} hidden>
        {t('frame.keys')}
      </p>
      <div className="relative min-h-0 grow p-2">
        <FrameView
          frame={frame}
          marks={shown}
          actions={actions}
          prompt={prompt}
          zoom={hand.zoom}
          poll={poll}
          middle={middle}
          onScale={setScale}
          onGround={() => change({ selected: null })}
          over={() => (works && hand.tool === 'pen' ? <LiveInk scale={scale} pen={hand.pen} onStroke={drawn} /> : null)}
        />
        <ZoomButtons zoom={hand.zoom} onZoom={(zoom) => change({ zoom })} />
      </div>
      {writing && (
        <div className="flex items-end gap-2 border-t border-line bg-mist p-3">
          <div className="grow rounded-lg border-2 border-dusk bg-paper p-2 text-lg">
            <Writing key={writing.id} mark={writing} actions={actions} />
          </div>
          <button
            type="button"
            className="rounded-lg bg-dusk px-4 py-3 font-semibold text-paper"
            onClick={() => change({ editing: null, draft: null })}
          >
            {t('ledge.done')}
          </button>
        </div>
      )}
      <Ledge
        hand={hand}
        change={change}
        mayAdd={works}
        mark={changeable}
        onNew={begin}
        onStyle={(mark, style) => set(mark.id, style)}
        onEdit={(mark) => change({ editing: mark.id })}
        onRemove={actions.onRemove}
        undo={canUndo && sheet !== null ? () => lesson.undo(sheet) : null}
        redo={canRedo && sheet !== null ? () => lesson.redo(sheet) : null}
      >
        {more?.(selected)}
      </Ledge>
    </div>
  )
}
