import type { Element, Frame } from '../../wire/types.gen'
import { paint } from '../paint/canvas'
import { around, boundsOf, FRAME } from '../paint/geometry'

const MARGIN = 16

/** Puts marks on the clipboard as a PNG, for other programs. Nothing happens where the browser does not allow it. */
export async function copyAsPicture(marks: Element[]) {
  const box = around(marks.map(boundsOf))
  if (!box || typeof ClipboardItem === 'undefined') return
  const ground: Frame = {
    id: '',
    title: '',
    prompt: '',
    paper: { kind: 'plain' },
    arrangement: 'class',
    layout: {},
    permission: 'look',
    prepared: [],
  }
  const whole = document.createElement('canvas')
  paint(whole, ground, marks, FRAME.width, 1)
  const part = document.createElement('canvas')
  part.width = box.w + 2 * MARGIN
  part.height = box.h + 2 * MARGIN
  part.getContext('2d')?.drawImage(whole, MARGIN - box.x, MARGIN - box.y)
  const blob = new Promise<Blob>((resolve, reject) =>
    part.toBlob((made) => (made ? resolve(made) : reject(new Error('no picture'))), 'image/png'),
  )
  await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]).catch(() => {})
}
