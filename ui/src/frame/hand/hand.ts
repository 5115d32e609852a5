import { isAnswer } from '../../rules/answers'
import { v7 as uuidv7 } from 'uuid'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { underEraser } from '../../rules/apply'
import type { Bench } from '../../wire/bench'
import { isPiece, isSupply, type Lying } from '../../rules/pieces'
import type { Element, Erase, Step, Stroke, Tidied } from '../../wire/types.gen'
import { asOne, copies, grouped, moved, removed, stacked, turnedBy, ungrouped } from './arrange'
import {
  around,
  boundsOf,
  centre,
  FRAME,
  freePlace,
  inside,
  isWritten,
  LINE,
  NOTE,
  textOf,
  type Box,
  type Point,
} from '../paint/geometry'
import { isDraft } from './draft'
import { isInk, wholeFrame, ZOOM, type Ground, type HandState, type Tool, type View } from './state'
import { loadSettings, saveSettings, type Settings } from './settings'

/**
 * A hand on a frame: the tool it holds, what it has picked up, and everything
 * it can do. The screens show its state and call its methods.
 */
export class Hand {
  readonly state: StoreApi<HandState>
  ground: Ground
  readonly bench: Bench
  /** The screen pixels of a frame unit. */
  scale = 1
  /** How much is seen at zoom 1, in units: in one direction the frame, in the other at least that. */
  private seen = { w: FRAME.width, h: FRAME.height }
  /** Where on the frame a point of the screen lies. */
  toFrame: (clientX: number, clientY: number) => Point = (x, y) => ({ x, y })

  constructor(bench: Bench, ground: Ground, tool: Tool) {
    this.bench = bench
    this.ground = ground
    this.state = createStore<HandState>(() => ({
      tool,
      settings: loadSettings(),
      selected: new Set(),
      editing: null,
      draft: null,
      offer: null,
      view: wholeFrame,
      sketch: null,
      erasing: null,
      box: null,
      lasso: null,
      guides: [],
      shift: null,
      cursor: null,
      names: false,
      replied: new Map(),
      stacked: new Map(),
      only: null,
      asked: null,
      hovered: null,
      from: {},
      writesBelow: false,
    }))
  }

  /** Tells the hand where it works now, and what authors are called there. */
  stand(ground: Ground, nameOf: (author: string | undefined) => string) {
    this.ground = ground
    this.nameOf = nameOf
  }

  /** Tells the hand how the frame lies on the screen. */
  see(scale: number, seen: { w: number; h: number }, toFrame: (clientX: number, clientY: number) => Point) {
    this.scale = scale
    this.seen = seen
    this.toFrame = toFrame
  }

  get now() {
    return this.state.getState()
  }

  set(part: Partial<HandState>) {
    this.state.setState(part)
  }

  hold(tool: Tool) {
    this.set({
      tool,
      editing: null,
      offer: null,
      sketch: null,
      erasing: null,
      ...(tool === 'select' ? {} : { selected: new Set() }),
    })
  }

  /** Changes the settings of one tool; they are kept on the device. */
  settle<T extends keyof Settings>(tool: T, part: Partial<Settings[T]>) {
    const settings = { ...this.now.settings, [tool]: { ...this.now.settings[tool], ...part } }
    saveSettings(settings)
    this.set({ settings })
  }

  /** What an author is called. */
  nameOf: (author: string | undefined) => string = () => ''

  mark = (id: string) =>
    this.ground.marks.find((m) => m.id === id) ?? this.ground.frame.prepared.find((m) => m.id === id)

  /** Whether a mark is a piece here: it can be moved, and nothing else. */
  isPiece = (mark: Lying) => isPiece(mark) && !this.ground.preparing

  private owns = (mark: Lying) =>
    this.ground.me === 'staff' || mark.author === this.ground.me || this.ground.frame.permission === 'together'

  mayChange = (mark: Lying) => this.ground.works && !isAnswer(mark) && !this.isPiece(mark) && this.owns(mark)

  mayMove = (mark: Lying) => this.mayChange(mark) || (this.ground.works && this.isPiece(mark))

  /** A piece that was moved can be put back; a copy of one can be taken away by its owner. */
  mayRemove = (mark: Lying) =>
    this.mayChange(mark) || (this.ground.works && mark.of !== undefined && (mark.of === mark.id || this.owns(mark)))

  /** Does steps on the sheet as one thing that can be undone. */
  do(steps: Step[]) {
    if (this.ground.sheet !== null && steps.length > 0) this.bench.do(this.ground.sheet, ...asOne(steps))
  }

  undo = () => this.ground.sheet !== null && this.bench.undo(this.ground.sheet)
  redo = () => this.ground.sheet !== null && this.bench.redo(this.ground.sheet)

  // Selecting

  /** Selects marks with all of their groups. */
  select(ids: Iterable<string>) {
    const marks = [...ids].map(this.mark).filter((m) => m !== undefined)
    const groups = new Set(marks.map((m) => m.group).filter(Boolean))
    const all = this.ground.marks.filter((m) => m.group && groups.has(m.group))
    this.set({ selected: new Set([...marks, ...all].map((m) => m.id)), editing: null, offer: null })
  }

  toggle(id: string) {
    const { selected } = this.now
    const group = this.mark(id)?.group
    const ids = group ? this.ground.marks.filter((m) => m.group === group).map((m) => m.id) : [id]
    const next = new Set(selected)
    for (const one of ids) if (selected.has(id)) next.delete(one)
      else next.add(one) // oxfmt-ignore
    this.set({ selected: next })
  }

  selectAll() {
    this.set({ tool: 'select' })
    this.select(this.ground.marks.filter(this.mayMove).map((m) => m.id))
  }

  /** The marks that are selected, the lowest first. */
  picked = () => this.ground.marks.filter((m) => this.now.selected.has(m.id))
  /** Those of them that this person may change. */
  mine = () => this.picked().filter((m) => this.mayChange(m) && !isDraft(m))
  movable = () => this.picked().filter((m) => this.mayMove(m) && !isDraft(m))

  /** Moves marks; of a piece with an endless supply a copy is laid down instead. */
  shift(marks: Lying[], dx: number, dy: number) {
    const { columns } = this.ground
    const stands = (m: Lying) => columns !== null && m.kind === 'note' && !this.isPiece(m)
    const steps = moved(
      marks.filter((m) => !stands(m)),
      dx,
      dy,
    )
    for (const m of marks.filter(stands)) steps.push(...columns!.moves.between(this.ground, m, m.x + dx, m.y + dy))
    const copies = new Map<string, string>()
    const all = steps.map((step): Step => {
      const mark = step.kind === 'set' ? marks.find((m) => m.id === step.set.mark) : undefined
      if (!mark || step.kind !== 'set' || this.ground.preparing || !isSupply(mark)) return step
      copies.set(mark.id, uuidv7())
      return this.copyOf(mark, { x: step.set.x ?? mark.x, y: step.set.y ?? mark.y }, copies.get(mark.id)!)
    })
    this.do(all)
    if (copies.size > 0) this.set({ selected: new Set([...this.now.selected].map((id) => copies.get(id) ?? id)) })
  }

  private copyOf({ id, w, h, turn }: Lying, at: Point, mark: string): Step {
    return { kind: 'add', add: { mark, ...at, w, h, turn, kind: 'placed', placed: { piece: id } } }
  }

  /** Takes a piece out of the tray: to a point, or to free space near where the person looks. */
  takeOut(piece: Lying, to?: Point) {
    const at = to
      ? inside(to.x - piece.w / 2, to.y - piece.h / 2, piece.w, piece.h)
      : freePlace([...this.ground.frame.prepared, ...this.ground.marks], piece.w, piece.h, this.middle())
    const id = !this.ground.preparing && isSupply(piece) ? uuidv7() : piece.id
    if (this.ground.preparing) this.do([{ kind: 'set', set: { mark: id, ...at, tray: false } }])
    else if (isSupply(piece)) this.do([this.copyOf(piece, at, id)])
    else this.do([{ kind: 'set', set: { mark: id, ...at } }])
    this.set({ tool: 'select', selected: new Set([id]), editing: null })
  }

  /** Puts a note that lies beside the frame on it, where most room is near where the person looks. */
  putOn({ id, w, h }: Element) {
    const at = freePlace([...this.ground.frame.prepared, ...this.ground.marks], w, h, this.middle())
    this.do([{ kind: 'set', set: { mark: id, ...at, margin: false } }])
    this.set({ tool: 'select', selected: new Set([id]), editing: null })
  }

  // Changing what is selected

  nudge(dx: number, dy: number) {
    const marks = this.movable()
    const { columns } = this.ground
    const [one] = marks
    if (columns && one?.kind === 'note' && marks.length === 1)
      this.do(columns.moves.nextTo(this.ground, one, Math.sign(dx), Math.sign(dy)))
    else this.shift(marks, dx, dy)
  }

  turn(degrees: number) {
    const turns = (m: Lying) => m.kind !== 'cover' && m.kind !== 'poll' && m.kind !== 'table'
    this.do(
      turnedBy(
        this.movable().filter((m) => turns(m) && (this.ground.preparing || !isSupply(m))),
        degrees,
      ),
    )
  }

  stack(where: 'front' | 'back') {
    const marks = this.movable().filter((m) => !this.isPiece(m) || m.of !== undefined)
    this.do(stacked(marks, this.ground.marks, where))
  }

  group() {
    const marks = this.mine()
    const one = marks.length > 1 && marks.every((m) => m.group && m.group === marks[0]!.group)
    this.do(one ? ungrouped(marks) : grouped(marks))
  }

  remove() {
    const { draft } = this.now
    if (draft && this.now.selected.has(draft.id)) this.set({ draft: null, editing: null })
    this.do(removed(this.picked().filter((m) => this.mayRemove(m) && !isDraft(m))))
    this.set({ selected: new Set() })
  }

  duplicate() {
    this.lay(copies(this.mine(), 40, 40))
  }

  /** Lays down copies and selects them. */
  lay({ steps, ids }: { steps: Step[]; ids: string[] }) {
    if (steps.length === 0) return
    this.do(steps)
    this.set({ selected: new Set(ids), tool: 'select', editing: null })
  }

  /** Restyles all selected marks that have the property. */
  style(change: (mark: Element) => Omit<(Step & { kind: 'set' })['set'], 'mark'> | null) {
    this.do(
      this.mine().flatMap((m): Step[] => {
        const to = change(m)
        return to ? [{ kind: 'set', set: { mark: m.id, ...to } }] : []
      }),
    )
  }

  agree(mark: Element) {
    const yes = !(mark.agreed ?? []).includes(this.ground.me)
    this.do([{ kind: 'agree', agree: { mark: mark.id, yes } }])
  }

  // Laying down

  /** The middle of what is seen. */
  middle = (): Point => ({ x: this.now.view.x, y: this.now.view.y })

  /** Begins a note or text in free space near where the person looks, or at a point. */
  begin(kind: 'note' | 'text', at?: Point) {
    const { settings } = this.now
    const [w, h] = kind === 'note' ? [NOTE.width, NOTE.height] : [420, Math.ceil(settings.text.size * LINE)]
    const { frame, marks } = this.ground
    const place = at
      ? inside(at.x, at.y, w, h)
      : freePlace([...frame.prepared, ...marks], w, h, this.now.cursor ?? this.middle())
    const id = uuidv7()
    this.set({ tool: 'select', draft: { kind, id, w, h, ...place }, selected: new Set([id]), editing: id, offer: null })
  }

  edit(id: string | null) {
    const before = this.now.editing
    if (id === null) this.set({ editing: null, draft: null })
    else this.set({ editing: id, selected: new Set([id]), tool: 'select' })
    const { sheet } = this.ground
    if (sheet !== null && (id ?? before)) this.bench.passing.edit(sheet, id ?? '')
  }

  /** Saves what was written; a note without words is not kept. */
  write(mark: Element, text: string) {
    const isNew = isDraft(mark)
    const keepsEmpty = mark.kind === 'shape' || mark.kind === 'picture' || mark.kind === 'link'
    if (text.trim() === '' && !keepsEmpty) {
      if (!isNew) this.do([{ kind: 'remove', remove: { mark: mark.id } }])
      return
    }
    if (!isNew) {
      if (text !== textOf(mark))
        this.do([{ kind: 'set', set: { mark: mark.id, ...(mark.kind === 'picture' ? { alt: text } : { text }) } }])
      return
    }
    const { id, x, y, w, h } = mark
    const place = { mark: id, x, y, w, h, free: true }
    if (mark.kind === 'note') {
      const { columns } = this.ground
      const column = columns?.moves.headAt(columns.heads, x + w / 2)
      this.do([{ kind: 'add', add: { ...place, kind: 'note', note: { ...mark.note, text, column: column?.id } } }])
      // What is new stands last, in sight.
      if (column && column.beyond > 0)
        this.set({ from: { ...this.now.from, [column.id]: column.beyond + 1 + (this.now.from[column.id] ?? 0) } })
    }
    if (mark.kind === 'text')
      this.do([{ kind: 'add', add: { ...place, free: false, kind: 'text', text: { ...mark.text, text } } }])
  }

  /** Lays down a mark made by a gesture. */
  put(mark: Element) {
    const { id, author: _a, z: _z, at: _t, ...rest } = mark
    this.do([{ kind: 'add', add: { ...rest, mark: id } } as Step])
  }

  /** Keeps a drawn stroke, and asks whether it was meant to be a clean shape. */
  async drew(id: string, place: Box, stroke: Stroke) {
    this.set({ offer: null })
    this.do([{ kind: 'add', add: { mark: id, ...place, kind: 'stroke', stroke } }])
    const { sheet } = this.ground
    if (sheet === null || stroke.nib === 'highlighter' || !this.now.settings.tidy.offers) return
    await this.bench.settled()
    const tidied = await this.bench.tidy(sheet, id)
    if (tidied?.clean && this.mark(id) && isInk(this.now.tool)) this.set({ offer: { mark: id, tidied } })
  }

  /** Puts a clean shape, or a smoother line, in the place of a stroke. */
  take(mark: string, instead: NonNullable<Tidied['clean']>) {
    const id = uuidv7()
    const old = this.mark(mark)
    this.do([
      { kind: 'remove', remove: { mark } },
      { kind: 'add', add: { ...instead, mark: id, group: old?.group } } as Step,
    ])
    this.set({ offer: null, ...(this.now.selected.has(mark) ? { selected: new Set([id]) } : {}) })
  }

  /** Smooths the selected strokes. */
  async smooth() {
    const { sheet } = this.ground
    if (sheet === null) return
    const steps: Step[] = []
    for (const m of this.mine()) {
      if (m.kind !== 'stroke') continue
      const smooth = (await this.bench.tidy(sheet, m.id))?.smooth
      if (smooth?.kind !== 'stroke') continue
      const { x, y, w, h, turn } = smooth
      steps.push({ kind: 'set', set: { mark: m.id, x, y, w, h, turn: turn ?? 0, stroke: smooth.stroke } })
    }
    this.do(steps)
  }

  /** Takes away what an eraser has come over; nothing, where that is nothing. */
  erase(erase: Erase) {
    this.set({ erasing: null })
    const marks = new Map(this.ground.saved.map((m) => [m.id, m]))
    const step = { kind: 'erase', erase } as const
    if (underEraser(marks, this.mayChange, step, '').length > 0) this.do([step])
  }

  // Looking

  look(view: Partial<View>) {
    const zoom = Math.max(ZOOM.least, Math.min(ZOOM.most, view.zoom ?? this.now.view.zoom))
    const clamp = (n: number, size: number, whole: number) => {
      const half = whole / zoom / 2
      return half * 2 >= size ? size / 2 : Math.max(half, Math.min(size - half, n))
    }
    const x = clamp(view.x ?? this.now.view.x, FRAME.width, this.seen.w)
    const y = clamp(view.y ?? this.now.view.y, FRAME.height, this.seen.h)
    this.set({ view: { zoom, x, y } })
  }

  /** Zooms so that a point of the frame stays where it is on the screen. */
  zoomAt(zoom: number, at: Point) {
    const { view } = this.now
    const to = Math.max(ZOOM.least, Math.min(ZOOM.most, zoom))
    const k = view.zoom / to
    this.look({ zoom: to, x: at.x + (view.x - at.x) * k, y: at.y + (view.y - at.y) * k })
  }

  fit = () => this.look(wholeFrame)

  /** Zooms so that the frame fills its place in both directions, and begins with the first that is on it. */
  fill() {
    const { w, h } = this.seen
    const boxes = [...this.ground.marks, ...this.ground.frame.prepared].filter((m) => m.w > 0).map(boundsOf)
    const first = boxes.sort((a, b) => a.x + a.y - (b.x + b.y))[0]
    this.look({ ...wholeFrame, ...(first && centre(first)), zoom: Math.max(w / FRAME.width, h / FRAME.height) })
  }

  /** Brings a mark into sight. */
  show(mark: Element) {
    const { zoom, x, y } = this.now.view
    if (zoom <= 1) return
    const b = boundsOf(mark)
    const c = centre(b)
    const [w, h] = [FRAME.width / zoom / 2, FRAME.height / zoom / 2]
    if (b.x < x - w || b.x + b.w > x + w || b.y < y - h || b.y + b.h > y + h) this.look(c)
  }

  /** The box around what is selected and may be changed. */
  grip = (): Box | null => around(this.movable().map(boundsOf))

  /** Enter on a mark: writes on it where that is possible. */
  open(mark: Element) {
    if (this.mayChange(mark) && (isWritten(mark) || this.ground.preparing)) this.edit(mark.id)
  }
}
