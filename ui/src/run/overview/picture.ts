import type { Cell, Coverage } from '../../wire/types.gen'

/** How high a row is, how wide the names are, and how high the heading, in pixels. */
export const ROW = 22
export const NAMES = 150
export const HEAD = 26
const LEAST = 18
const MOST = 120

type Colours = Record<'paper' | 'line' | 'night' | 'slate' | 'dusk' | 'fern' | 'rose', string>

function colours(): Colours {
  const style = getComputedStyle(document.documentElement)
  const of = (name: string) => style.getPropertyValue(`--color-${name}`)
  return {
    paper: of('paper'),
    line: of('line'),
    night: of('night'),
    slate: of('slate'),
    dusk: of('dusk'),
    fern: of('fern'),
    rose: of('rose'),
  }
}

/** How wide a cell is where the picture may be so wide. */
export const cellWidth = (frames: number, width: number) =>
  Math.max(LEAST, Math.min(MOST, Math.floor((width - NAMES) / Math.max(1, frames))))

/** The student and frame at a point of the picture, counted from 0; null beside the cells. */
export function cellAt({ students, frames }: Coverage, wide: number, x: number, y: number) {
  const [row, column] = [Math.floor((y - HEAD) / ROW), Math.floor((x - NAMES) / wide)]
  return students[row] && frames[column] && x >= NAMES && y >= HEAD ? { row, column } : null
}

/** How much there is in a cell. */
export const amount = (cell: Cell | null | undefined) => (cell?.marks ?? 0) + (cell?.answers ?? 0)

/**
 * Paints the coverage: in each cell a bar as long as what was done, compared with the most that
 * anybody did on that frame (its root, so that little can be told from nothing), and signs that can
 * be told apart without colour: a tick for right, a cross for wrong, a dot for done.
 */
export function paintCoverage(canvas: HTMLCanvasElement, coverage: Coverage, wide: number, ratio: number) {
  const { students, frames } = coverage
  const [width, height] = [NAMES + wide * frames.length + 1, HEAD + ROW * students.length + 1]
  canvas.width = width * ratio
  canvas.height = height * ratio
  canvas.style.width = `${width}px`
  canvas.style.height = `${height}px`
  const to = canvas.getContext('2d')
  if (!to) return
  const c = colours()
  to.scale(ratio, ratio)
  to.fillStyle = c.paper
  to.fillRect(0, 0, width, height)
  const font = getComputedStyle(document.body).fontFamily
  to.textBaseline = 'middle'
  to.font = `600 13px ${font}`
  to.fillStyle = c.slate
  to.textAlign = 'center'
  frames.forEach((_, i) => to.fillText(String(i + 1), NAMES + wide * i + wide / 2, HEAD / 2))
  const most = frames.map((_, i) => Math.max(1, ...students.map((s) => amount(s.cells[i]))))
  to.textAlign = 'start'
  students.forEach((student, row) => {
    const y = HEAD + row * ROW
    to.font = `13px ${font}`
    to.fillStyle = c.night
    to.fillText(fitting(to, student.name, NAMES - 12), 4, y + ROW / 2)
    student.cells.forEach((cell, i) => {
      const x = NAMES + wide * i
      to.strokeStyle = c.line
      to.strokeRect(x + 0.5, y + 0.5, wide, ROW)
      const much = amount(cell)
      if (much > 0) {
        to.fillStyle = c.dusk
        to.globalAlpha = 0.55
        to.fillRect(x + 2, y + 3, Math.max(2, (wide - 3) * Math.sqrt(much / most[i]!)), ROW - 5)
        to.globalAlpha = 1
      }
      if (cell) signs(to, cell, x, y, wide, c)
    })
  })
}

function signs(to: CanvasRenderingContext2D, cell: Cell, x: number, y: number, wide: number, c: Colours) {
  const [cx, cy, r] = [x + wide / 2, y + ROW / 2, 5]
  if (cell.right || cell.wrong) {
    to.fillStyle = c.paper
    to.beginPath()
    to.arc(cx, cy, r + 3, 0, 7)
    to.fill()
    to.lineWidth = 2.5
    to.strokeStyle = cell.wrong ? c.rose : c.fern
    to.beginPath()
    if (cell.wrong) {
      to.moveTo(cx - r + 1, cy - r + 1)
      to.lineTo(cx + r - 1, cy + r - 1)
      to.moveTo(cx + r - 1, cy - r + 1)
      to.lineTo(cx - r + 1, cy + r - 1)
    } else {
      to.moveTo(cx - r, cy)
      to.lineTo(cx - 1, cy + r - 1)
      to.lineTo(cx + r, cy - r + 1)
    }
    to.stroke()
    to.lineWidth = 1
  }
  if (cell.done) {
    to.fillStyle = c.night
    to.beginPath()
    to.arc(x + wide - 6, y + 6, 3, 0, 7)
    to.fill()
  }
}

function fitting(to: CanvasRenderingContext2D, text: string, width: number) {
  if (to.measureText(text).width <= width) return text
  let cut = text
  while (cut && to.measureText(`${cut}…`).width > width) cut = cut.slice(0, -1)
  return `${cut}…`
}
