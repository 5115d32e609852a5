import type { AnswerValue, Element, Frame, Tint } from '../../wire/types.gen'
import { groundOf } from '../../wire/ground'
import { fixedOn, laid } from '../../rules/pieces'
import { optionsOf } from '../../polls/kinds'
import { boundsOf, CELL, columnWidths, endsOf, FRAME, LINE, NOTE, PROMPT, SHAPE_TEXT, type Box } from './geometry'
import { HEAD, inColumns, type Head } from './columns'
import { lines } from './lines'
import { headPath, shapePath, strokePath } from './outline'
import { pictureURL } from '../pictures/pictures'
import { stampPaths, stampToken } from './stamps'
import { isHidden, isRemoved } from '../../rules/standing'

type Context = CanvasRenderingContext2D
const families = new Map<string, string>()
const family = (name: string) => {
  if (!families.has(name))
    families.set(name, getComputedStyle(document.documentElement).getPropertyValue(`--font-${name}`))
  return families.get(name)!
}
const font = (size: number, weight = 400) => `${weight} ${size}px ${family('sans')}`

/** The colours of the canvas that is being painted; a dark frame has some of its own. */
let colours = getComputedStyle(document.documentElement)
let tokens = new Map<string, string>()
/** Which set of colours it is: each is asked for once. */
let scheme = ''
const known = new Map<string, Map<string, string>>()
const token = (name: string) => {
  const value = tokens.get(name) ?? colours.getPropertyValue(`--color-${name}`)
  tokens.set(name, value)
  return value
}

function takeColours(of: globalThis.Element, dark: boolean) {
  colours = getComputedStyle(of)
  scheme = `${dark} ${colours.getPropertyValue('--color-paper')} ${colours.getPropertyValue('--color-ground')}`
  tokens = known.get(scheme) ?? new Map<string, string>()
  known.set(scheme, tokens)
}

const pictures = new Map<string, HTMLImageElement>()

/** A picture, if it is there; when it comes later, `again` is called. */
function pictureOf(id: string, again: () => void): HTMLImageElement | null {
  let image = pictures.get(id)
  if (!image) {
    image = new Image()
    image.src = pictureURL(id)
    pictures.set(id, image)
  }
  if (image.complete) return image.naturalWidth > 0 ? image : null
  image.addEventListener('load', again, { once: true })
  return null
}

/** Paints a frame with its marks onto a canvas of a width in CSS pixels; `again` is called when a picture has come. */
export function paint(
  canvas: HTMLCanvasElement,
  frame: Frame,
  marks: readonly Element[],
  width: number,
  ratio: number,
  again: () => void = () => {},
  /** The part of the frame that is painted, of the shape of a frame; all of it where none is given. */
  part: Box = { x: 0, y: 0, w: FRAME.width, h: FRAME.height },
) {
  canvas.toggleAttribute('data-dark', frame.paper.dark === true)
  takeColours(canvas.isConnected ? canvas : document.documentElement, frame.paper.dark === true)
  const [w, h] = [Math.round(width * ratio), Math.round((Math.round(width * ratio) * FRAME.height) / FRAME.width)]
  if (canvas.width !== w || canvas.height !== h) [canvas.width, canvas.height] = [w, h]
  const to = canvas.getContext('2d')
  if (!to) return
  to.setTransform(1, 0, 0, 1, 0, 0)
  const k = FRAME.width / part.w
  const [left, top] = [(-part.x * w) / part.w, (-part.y * h) / part.h]
  to.drawImage(ground(frame, w, h, again), left, top, w * k, h * k)
  to.setTransform(w / part.w, 0, 0, w / part.w, left, top)
  to.textBaseline = 'top'
  const answers = new Map(
    // Of several rounds the last answer is shown.
    marks
      .flatMap((m) => (m.kind === 'answer' && !isRemoved(m) ? [m.answer] : []))
      .sort((a, b) => a.round - b.round)
      .map(({ poll, value }) => [poll, value] as const),
  )
  const lying = laid(frame, marks).marks
  const columns = frame.layout.columns?.length ? inColumns(frame, lying) : null
  for (const head of columns?.heads ?? []) heading(to, head)
  const all: readonly Element[] = [...fixedOn(frame), ...(columns?.marks ?? lying)]
  const find = (id: string) => all.find((m) => m.id === id)
  if (frame.set) row(to, all, answers)
  for (const mark of all) {
    if (frame.set && mark.kind === 'poll') continue
    if (!isRemoved(mark) && !mark.tray) lay(to, mark, find, answers, again)
  }
}

/** The papers with their prompts as they were painted last, of the frames that are shown small. */
const grounds = new Map<string, { frame: Frame; picture: HTMLCanvasElement }>()
const MAX_GROUNDS = 40

/** What lies under all marks of a frame: it is the same for every small picture of it. */
function ground(frame: Frame, w: number, h: number, again: () => void): HTMLCanvasElement {
  const key = `${frame.id} ${w} ${scheme}`
  const known = grounds.get(key)
  if (known && known.frame.paper === frame.paper && known.frame.prompt === frame.prompt) return known.picture
  const picture = document.createElement('canvas')
  ;[picture.width, picture.height] = [w, h]
  const to = picture.getContext('2d')!
  to.scale(w / FRAME.width, w / FRAME.width)
  to.textBaseline = 'top'
  let whole = true
  const later = () => {
    whole = false
    again()
  }
  paper(to, frame, later)
  // A picture or drawing that has yet to come calls later on; what is kept must be all of it.
  to.fillStyle = token('on-ground')
  to.font = `650 ${PROMPT.size}px ${family('display')}`
  lines(to, frame.prompt, PROMPT.width).forEach((line, i) =>
    begin(to, line, PROMPT.x, PROMPT.y + i * PROMPT.size * 1.15, PROMPT.width, frame.prompt),
  )
  if (whole && groundIsThere(frame) && document.fonts.status === 'loaded') {
    if (grounds.size >= MAX_GROUNDS) grounds.delete(grounds.keys().next().value!)
    grounds.set(key, { frame, picture })
  }
  return picture
}

/** Whether all that the paper needs has come: then it is painted once and for all. */
function groundIsThere({ paper }: Frame): boolean {
  if (paper.kind === 'picture') return pictures.get(paper.picture ?? '')?.complete ?? false
  return paper.kind === 'plain' || groundOf(paper, () => {}).lines.length > 0
}

const letter = /\p{L}/u
const leftwards = /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u

/** Takes the direction of words from their first letter, as the page does; says whether they run to the left. */
function direct(to: Context, text: string): boolean {
  const left = leftwards.test(letter.exec(text)?.[0] ?? '')
  to.direction = left ? 'rtl' : 'ltr'
  return left
}

/** Writes words that begin at the side where their language begins, in a box from x that is so wide. */
function begin(to: Context, line: string, x: number, y: number, width: number, whole = line) {
  to.fillText(line, direct(to, whole) ? x + width : x, y, width)
  to.direction = 'ltr'
}

/** Paints one mark alone, no larger than a box in CSS pixels. */
export function paintPiece(
  canvas: HTMLCanvasElement,
  mark: Element,
  width: number,
  height: number,
  ratio: number,
  again: () => void,
) {
  const box = boundsOf(mark)
  const rim = 6
  const k = Math.min(width / (box.w + 2 * rim), height / (box.h + 2 * rim), 0.6)
  takeColours(canvas, false)
  canvas.width = Math.ceil((box.w + 2 * rim) * k * ratio)
  canvas.height = Math.ceil((box.h + 2 * rim) * k * ratio)
  canvas.style.width = `${canvas.width / ratio}px`
  const to = canvas.getContext('2d')
  if (!to) return
  to.scale(k * ratio, k * ratio)
  to.translate(rim - box.x, rim - box.y)
  to.textBaseline = 'top'
  lay(to, mark, () => undefined, new Map(), again)
}

/** Paints a mark where it lies. */
function lay(
  to: Context,
  mark: Element,
  find: (id: string) => Element | undefined,
  answers: Map<string, AnswerValue>,
  again: () => void,
) {
  to.save()
  to.globalAlpha = isHidden(mark) ? 0.4 : 1
  if (mark.kind === 'connector') connector(to, mark, find)
  else if (mark.kind === 'stroke') stroke(to, mark)
  else {
    to.translate(mark.x, mark.y)
    if (mark.turn) {
      to.translate(mark.w / 2, mark.h / 2)
      to.rotate((mark.turn * Math.PI) / 180)
      to.translate(-mark.w / 2, -mark.h / 2)
    }
    one(to, mark, answers, again)
  }
  to.restore()
}

const groundTokens = { fine: 'grid', base: 'rule', guide: 'grid', firm: 'on-ground', dots: 'line' } as const

function paper(to: Context, { paper }: Frame, again: () => void) {
  to.fillStyle = token('ground')
  to.fillRect(0, 0, FRAME.width, FRAME.height)
  if (paper.kind === 'picture') {
    const image = pictureOf(paper.picture ?? '', again)
    if (!image) return
    const k = Math.min(FRAME.width / image.naturalWidth, FRAME.height / image.naturalHeight)
    const [w, h] = [k * image.naturalWidth, k * image.naturalHeight]
    to.drawImage(image, (FRAME.width - w) / 2, (FRAME.height - h) / 2, w, h)
    return
  }
  const { lines, labels } = groundOf(paper, again)
  for (const line of lines) {
    const path = new Path2D(line.path)
    to.fillStyle = to.strokeStyle = token(groundTokens[line.weight])
    to.lineWidth = line.weight === 'firm' ? 3 : 2
    to.setLineDash(line.weight === 'guide' ? [14, 10] : [])
    if (line.weight === 'dots') to.fill(path)
    else to.stroke(path)
  }
  to.setLineDash([])
  to.fillStyle = token('on-ground')
  to.textBaseline = 'middle'
  for (const { x, y, size, text, anchor } of labels) {
    to.font = font(size)
    to.textAlign = anchor === 'middle' ? 'center' : anchor
    to.fillText(text, x, y)
  }
  to.textBaseline = 'top'
  to.textAlign = 'start'
}

function connector(to: Context, mark: Element & { kind: 'connector' }, find: (id: string) => Element | undefined) {
  const { ink, width, dash, heads } = mark.connector
  const [a, b] = endsOf(mark.connector, find)
  to.strokeStyle = token(`ink-${ink}`)
  to.lineWidth = width
  to.lineCap = to.lineJoin = 'round'
  to.setLineDash(dash ? [2.4 * width, 2.4 * width] : [])
  to.stroke(new Path2D(`M${a.x} ${a.y}L${b.x} ${b.y}`))
  to.setLineDash([])
  if (heads) to.stroke(new Path2D(headPath(a.x, a.y, b.x, b.y, width)))
  if (heads === 'both') to.stroke(new Path2D(headPath(b.x, b.y, a.x, a.y, width)))
}

function stroke(to: Context, mark: Element & { kind: 'stroke' }) {
  to.fillStyle = token(`ink-${mark.stroke.ink}`)
  if (mark.stroke.nib === 'highlighter') {
    to.globalAlpha *= 0.4
    to.globalCompositeOperation = colours.getPropertyValue('--shine') === 'screen' ? 'screen' : 'multiply'
  }
  to.fill(new Path2D(strokePath(mark)))
}

function one(to: Context, mark: Element, answers: Map<string, AnswerValue>, again: () => void) {
  switch (mark.kind) {
    case 'note':
      return note(to, mark.note.text, mark.note.tint, mark.note.size || NOTE.size, mark.w, mark.h)
    case 'text':
      return words(to, mark)
    case 'shape': {
      const { shape, w, h } = mark
      const path = new Path2D(shapePath(shape.form, w, h, shape.lean))
      if (shape.fill) {
        to.fillStyle = token(`note-${shape.fill}`)
        to.fill(path)
      }
      to.strokeStyle = token(`ink-${shape.ink}`)
      to.lineWidth = shape.width
      to.lineJoin = 'round'
      to.setLineDash(shape.dash ? [14, 12] : [])
      to.stroke(path)
      if (shape.text) middleWords(to, shape.text, w, h, shape.fill ? 'night' : 'ink-night')
      return
    }
    case 'stamp': {
      const { fill, line } = stampPaths[mark.stamp.sign]
      to.scale(mark.w / 48, mark.h / 48)
      to.fillStyle = token(stampToken[mark.stamp.sign])
      to.beginPath()
      to.arc(24, 24, 22.5, 0, 2 * Math.PI)
      to.fill()
      to.fillStyle = to.strokeStyle = token('paper')
      if (fill) to.fill(new Path2D(fill), 'evenodd')
      to.lineWidth = 4
      to.lineCap = to.lineJoin = 'round'
      if (line) to.stroke(new Path2D(line))
      return
    }
    case 'picture': {
      const image = pictureOf(mark.picture.picture, again)
      to.fillStyle = token('mist')
      if (image) to.drawImage(image, 0, 0, mark.w, mark.h)
      else to.fillRect(0, 0, mark.w, mark.h)
      return
    }
    case 'link': {
      to.fillStyle = token('paper')
      to.strokeStyle = token('edge')
      to.lineWidth = 2
      to.beginPath()
      to.roundRect(0, 0, mark.w, mark.h, 16)
      to.fill()
      to.stroke()
      to.fillStyle = token('night')
      to.font = font(SHAPE_TEXT, 650)
      begin(to, mark.link.title || mark.link.url, 20, mark.h / 2 - SHAPE_TEXT / 2, mark.w - 40)
      return
    }
    case 'table':
      return table(to, mark.table.rows, mark.w, mark.h)
    case 'cover': {
      to.fillStyle = token(`note-${mark.cover.tint}`)
      to.strokeStyle = token('edge')
      to.lineWidth = 3
      to.fillRect(0, 0, mark.w, mark.h)
      to.strokeRect(1.5, 1.5, mark.w - 3, mark.h - 3)
      if (mark.cover.text) middleWords(to, mark.cover.text, mark.w, mark.h, 'night')
      return
    }
    case 'poll':
      return poll(to, mark, answers.get(mark.id), again)
  }
}

function words(to: Context, { text, w }: Element & { kind: 'text' }) {
  to.fillStyle = token(`ink-${text.ink}`)
  to.font = font(text.size, text.bold ? 700 : 400)
  const indent = text.list ? text.size * 1.2 : 0
  let row = 0
  text.text.split('\n').forEach((paragraph, n) => {
    const broken = lines(to, paragraph, w - indent)
    const sign = text.list === 'numbers' ? `${n + 1}.` : '•'
    if (text.list) begin(to, sign, 0, row * text.size * LINE, w, text.text)
    const left = direct(to, text.text)
    for (const line of broken) {
      const free = w - indent - to.measureText(line).width
      const x = text.align === 'centre' ? free / 2 : text.align === 'end' ? free : 0
      to.fillText(line, left ? w - indent - x : indent + x, row++ * text.size * LINE)
    }
  })
  to.direction = 'ltr'
}

/** A column's heading, and how many notes are beyond what is seen of it. */
function heading(to: Context, { x, y, w, h, title, beyond }: Head) {
  to.fillStyle = token('on-ground')
  to.font = font(HEAD.size, 650)
  begin(to, lines(to, title ?? '', w)[0] ?? '', x, y + 4, w, title ?? '')
  to.fillStyle = token('edge')
  to.fillRect(x, y + HEAD.rule, w, 3)
  if (beyond === 0) return
  to.font = font(28, 650)
  to.fillText(`+${beyond}`, x + w / 2 - 20, y + h - 30)
}

function middleWords(to: Context, text: string, w: number, h: number, colour: string) {
  to.fillStyle = token(colour)
  to.font = font(SHAPE_TEXT)
  const broken = lines(to, text, w * 0.7)
  broken.forEach((line, i) => {
    const wide = to.measureText(line).width
    begin(to, line, (w - wide) / 2, h / 2 + (i - broken.length / 2) * SHAPE_TEXT * LINE, wide, text)
  })
}

function note(to: Context, text: string, tint: Tint, size: number, w: number, h: number) {
  to.font = font(size)
  const wrapped = lines(to, text, w - 2 * NOTE.rim)
  const height = Math.max(h, wrapped.length * size * LINE + 2 * NOTE.rim)
  to.fillStyle = token(`note-${tint}`)
  to.strokeStyle = token('line')
  to.lineWidth = 2
  to.beginPath()
  to.roundRect(0, 0, w, height, 8)
  to.fill()
  to.stroke()
  to.fillStyle = token('night')
  wrapped.forEach((line, i) => begin(to, line, NOTE.rim, NOTE.rim + i * size * LINE, w - 2 * NOTE.rim, text))
}

function table(to: Context, rows: string[][], w: number, h: number) {
  const widths = columnWidths(rows, w)
  const rh = h / rows.length
  to.strokeStyle = token('edge')
  to.lineWidth = 2
  rows.forEach((row, y) => {
    let left = 0
    row.forEach((cell, x) => {
      const width = widths[x]!
      to.fillStyle = y === 0 ? token('mist') : token('paper')
      to.fillRect(left, y * rh, width, rh)
      to.strokeRect(left, y * rh, width, rh)
      to.fillStyle = token('night')
      to.font = font(CELL.size, y === 0 ? 650 : 400)
      begin(to, cell, left + 14, y * rh + (rh - CELL.size) / 2, width - 28)
      left += width
    })
  })
}

/** Questions in a row, each a line with its number; those that are answered have a sign. */
function row(to: Context, marks: readonly Element[], answers: ReadonlyMap<string, AnswerValue>) {
  const polls = marks.filter((m) => m.kind === 'poll')
  const [x, top, w] = [120, 190, FRAME.width - 240]
  const step = Math.min(130, (FRAME.height - top - 40) / Math.max(1, polls.length))
  const size = Math.min(44, step * 0.5)
  polls.forEach((mark, i) => {
    const y = top + i * step
    to.fillStyle = token(answers.has(mark.id) ? 'dusk-soft' : 'paper')
    to.beginPath()
    to.roundRect(x, y, w, step * 0.86, 16)
    to.fill()
    to.fillStyle = token('night')
    to.font = font(size, 650)
    const number = `${i + 1}. ${answers.has(mark.id) ? '● ' : ''}`
    begin(
      to,
      lines(to, number + mark.poll.text, w - 60)[0] ?? '',
      x + 30,
      y + (step * 0.86 - size) / 2,
      w - 60,
      mark.poll.text,
    )
  })
}

function poll(to: Context, mark: Element & { kind: 'poll' }, chosen: AnswerValue | undefined, again: () => void) {
  const { text } = mark.poll
  const ranked = chosen?.kind === 'rank' ? chosen.rank.order : []
  const options = optionsOf(mark.poll)
  to.fillStyle = token('paper')
  to.fillRect(0, 0, mark.w, mark.h)
  to.fillStyle = token('night')
  to.font = font(44, 650)
  lines(to, text, mark.w - 60).forEach((line, i) => begin(to, line, 30, 30 + i * 56, mark.w - 60, text))
  const top = 150
  const step = (mark.h - top - 20) / options.length
  options.forEach((option, i) => {
    const y = top + i * step
    const mine = chosen?.kind === 'choice' && option.id === chosen.choice.option
    const place = ranked.indexOf(option.id)
    to.fillStyle = mine ? token('dusk') : token('mist')
    to.beginPath()
    to.roundRect(30, y, mark.w - 60, step - 18, 16)
    to.fill()
    to.fillStyle = mine ? token('paper') : token('night')
    to.font = font(38, mine ? 650 : 400)
    const image = option.picture ? pictureOf(option.picture, again) : null
    const side = image ? Math.min(step - 30, 220) : 0
    if (image) {
      const k = Math.min(side / image.naturalWidth, side / image.naturalHeight)
      to.drawImage(image, 45, y + 6, image.naturalWidth * k, image.naturalHeight * k)
    }
    begin(
      to,
      (mine ? '● ' : place >= 0 ? `${place + 1}. ` : '') + option.text,
      60 + side,
      y + (step - 18 - 38) / 2,
      mark.w - 150 - side,
    )
  })
}
