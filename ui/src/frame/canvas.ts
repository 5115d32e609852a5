import type { Element, Frame, Tint } from '../wire/types.gen'
import { token } from './colours'
import { CELL, columnWidths, FRAME, GRID, LINE, NOTE, PROMPT, strokePath } from './geometry'

type Context = CanvasRenderingContext2D
const family = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--font-${name}`)
const font = (size: number, weight = 400) => `${weight} ${size}px ${family('sans')}`

/** Paints a frame with its marks onto a canvas of a width in CSS pixels. */
export function paint(
  canvas: HTMLCanvasElement,
  frame: Frame,
  marks: readonly Element[],
  width: number,
  ratio: number,
) {
  canvas.width = Math.round(width * ratio)
  canvas.height = Math.round((canvas.width * FRAME.height) / FRAME.width)
  const to = canvas.getContext('2d')
  if (!to) return
  to.scale(canvas.width / FRAME.width, canvas.width / FRAME.width)
  to.textBaseline = 'top'
  paper(to, frame)
  to.fillStyle = token('night')
  to.font = `650 ${PROMPT.size}px ${family('display')}`
  lines(to, frame.prompt, PROMPT.width).forEach((line, i) =>
    to.fillText(line, PROMPT.x, PROMPT.y + i * PROMPT.size * 1.15),
  )
  const answers = new Map(
    marks.flatMap((m) => (m.kind === 'answer' ? [[m.answer.poll, m.answer.choice] as const] : [])),
  )
  for (const mark of [...(frame.fixed ?? []), ...marks]) {
    if (mark.removedBy) continue
    to.save()
    to.translate(mark.x, mark.y)
    to.globalAlpha = mark.hidden ? 0.4 : 1
    one(to, mark, answers)
    to.restore()
  }
}

function paper(to: Context, { paper }: Frame) {
  to.fillStyle = token('paper')
  to.fillRect(0, 0, FRAME.width, FRAME.height)
  const step = GRID[paper]
  if (step === 0) return
  to.strokeStyle = token('grid')
  to.fillStyle = token('line')
  to.lineWidth = 2
  to.beginPath()
  if (paper === 'dotted') {
    for (let y = step / 2; y < FRAME.height; y += step)
      for (let x = step / 2; x < FRAME.width; x += step) to.rect(x - 2, y - 2, 4, 4)
    to.fill()
    return
  }
  for (let y = step; y < FRAME.height; y += step) to.rect(0, y, FRAME.width, 0)
  if (paper === 'squared') for (let x = step; x < FRAME.width; x += step) to.rect(x, 0, 0, FRAME.height)
  to.stroke()
}

function one(to: Context, mark: Element, answers: Map<string, string>) {
  switch (mark.kind) {
    case 'stroke':
      to.fillStyle = token(`ink-${mark.stroke.ink}`)
      to.fill(new Path2D(strokePath(mark.stroke.points, mark.stroke.width)))
      return
    case 'note':
      return note(to, mark.note.text, mark.note.tint, mark.w, mark.h)
    case 'text':
      to.fillStyle = token(`ink-${mark.text.ink}`)
      to.font = font(mark.text.size)
      lines(to, mark.text.text, mark.w).forEach((line, i) => to.fillText(line, 0, i * mark.text.size * LINE))
      return
    case 'shape': {
      const { shape, w, h } = mark
      to.beginPath()
      if (shape.form === 'rect') to.rect(0, 0, w, h)
      else if (shape.form === 'ellipse') to.ellipse(w / 2, h / 2, w / 2, h / 2, 0, 0, 2 * Math.PI)
      else {
        to.moveTo(0, 0)
        to.lineTo(w, h)
      }
      if (shape.fill) {
        to.fillStyle = token(`note-${shape.fill}`)
        to.fill()
      }
      to.strokeStyle = token(`ink-${shape.ink}`)
      to.lineWidth = shape.width
      to.setLineDash(shape.dash ? [14, 12] : [])
      to.stroke()
      return
    }
    case 'table':
      return table(to, mark.table.rows, mark.w, mark.h)
    case 'poll':
      return poll(to, mark, answers.get(mark.id))
  }
}

function note(to: Context, text: string, tint: Tint, w: number, h: number) {
  to.font = font(NOTE.size)
  const wrapped = lines(to, text, w - 2 * NOTE.padding)
  const height = Math.max(h, wrapped.length * NOTE.size * LINE + 2 * NOTE.padding)
  to.fillStyle = token(`note-${tint}`)
  to.strokeStyle = token('line')
  to.lineWidth = 2
  to.beginPath()
  to.roundRect(0, 0, w, height, 8)
  to.fill()
  to.stroke()
  to.fillStyle = token('night')
  wrapped.forEach((line, i) => to.fillText(line, NOTE.padding, NOTE.padding + i * NOTE.size * LINE))
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
      to.fillText(cell, left + 14, y * rh + (rh - CELL.size) / 2, width - 20)
      left += width
    })
  })
}

function poll(to: Context, mark: Element & { kind: 'poll' }, chosen: string | undefined) {
  const { text, choices } = mark.poll
  to.fillStyle = token('paper')
  to.fillRect(0, 0, mark.w, mark.h)
  to.fillStyle = token('night')
  to.font = font(44, 650)
  lines(to, text, mark.w - 60).forEach((line, i) => to.fillText(line, 30, 30 + i * 56))
  const top = 150
  const step = (mark.h - top - 20) / choices.length
  choices.forEach((choice, i) => {
    const y = top + i * step
    const mine = choice.id === chosen
    to.fillStyle = mine ? token('dusk') : token('mist')
    to.beginPath()
    to.roundRect(30, y, mark.w - 60, step - 18, 16)
    to.fill()
    to.fillStyle = mine ? token('paper') : token('night')
    to.font = font(38, mine ? 650 : 400)
    to.fillText((mine ? '● ' : '') + choice.text, 60, y + (step - 18 - 38) / 2)
  })
}

/** Breaks text into lines that fit a width, at blanks where it can. */
export function lines(to: Pick<Context, 'measureText'>, text: string, width: number): string[] {
  const out: string[] = []
  for (const paragraph of text.split('\n')) {
    let line = ''
    for (const word of paragraph.split(/(?<= )/)) {
      if (to.measureText((line + word).trimEnd()).width <= width) {
        line += word
        continue
      }
      if (line) out.push(line.trimEnd())
      line = ''
      for (const letter of word) {
        if (line && to.measureText(line + letter).width > width) {
          out.push(line)
          line = ''
        }
        line += letter
      }
    }
    out.push(line.trimEnd())
  }
  return out
}
