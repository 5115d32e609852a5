type Measures = Pick<CanvasRenderingContext2D, 'measureText'>

/** Lines that were broken before, by font, width and text. */
const broken = new Map<string, string[]>()
const MAX_BROKEN = 3000

/** Breaks text into lines that fit a width, at blanks where it can. */
export function lines(to: Measures & { font?: string }, text: string, width: number): string[] {
  if (to.font === undefined || document.fonts.status !== 'loaded') return breakLines(to, text, width)
  const key = `${to.font} ${width} ${text}`
  const before = broken.get(key)
  if (before) return before
  const now = breakLines(to, text, width)
  if (broken.size >= MAX_BROKEN) broken.clear()
  broken.set(key, now)
  return now
}

function breakLines(to: Measures, text: string, width: number): string[] {
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
