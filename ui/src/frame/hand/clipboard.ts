import { isAnswer } from '../../rules/answers'
import { useEffect, type RefObject } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Element } from '../../wire/types.gen'
import { copies } from './arrange'
import { freePlace, NOTE, textOf, type Point } from '../paint/geometry'
import type { Hand } from './hand'

/** Our own kind of clipboard content: marks, as JSON. It goes between frames, sheets and tabs. */
const OURS = 'application/vnd.alpenglow.marks+json'
/** How many marks may be pasted at once. */
export const MAX_PASTE = 500

/** Copy, cut and paste on a workplace: marks among themselves, words and pictures to and from other programs. */
export function useClipboard(
  at: RefObject<HTMLDivElement | null>,
  hand: Hand,
  addPictures: (files: File[], at?: Point) => void,
) {
  useEffect(() => {
    const here = (e: ClipboardEvent) => {
      const target = e.target
      if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) return false
      return at.current?.contains(document.activeElement) || document.activeElement === document.body
    }
    const copy = (e: ClipboardEvent) => {
      const marks = hand.picked().filter((m) => !isAnswer(m))
      if (!here(e) || marks.length === 0 || !e.clipboardData) return
      e.preventDefault()
      e.clipboardData.setData(OURS, JSON.stringify(marks))
      e.clipboardData.setData('text/plain', marks.map(textOf).filter(Boolean).join('\n\n'))
      if (e.type === 'cut') hand.remove()
    }
    const paste = (e: ClipboardEvent) => {
      if (!here(e) || !e.clipboardData || !hand.ground.works) return
      e.preventDefault()
      const ours = e.clipboardData.getData(OURS)
      const pictures = [...e.clipboardData.files].filter((f) => f.type.startsWith('image/'))
      if (ours) pasteMarks(hand, ours)
      else if (pictures.length > 0) addPictures(pictures)
      else pasteWords(hand, e.clipboardData.getData('text/plain'))
    }
    document.addEventListener('copy', copy)
    document.addEventListener('cut', copy)
    document.addEventListener('paste', paste)
    return () => {
      document.removeEventListener('copy', copy)
      document.removeEventListener('cut', copy)
      document.removeEventListener('paste', paste)
    }
  }, [at, hand, addPictures])
}

function pasteMarks(hand: Hand, text: string) {
  let marks: Element[]
  try {
    marks = JSON.parse(text) as Element[]
  } catch {
    return
  }
  if (!Array.isArray(marks) || marks.length === 0) return
  if (marks.length > MAX_PASTE) {
    hand.bench.tell('too-many')
    return
  }
  // On the frame they came from they land a little beside; elsewhere where they were.
  const same = marks.some((m) => hand.mark(m.id))
  hand.lay(copies(marks, same ? 40 : 0, same ? 40 : 0))
}

/** A web address becomes a link; other words become a note, or a text where they are long. */
function pasteWords(hand: Hand, words: string) {
  const text = words.trim().replace(/\r\n?/g, '\n')
  if (!text) return
  if (text.length > 4000) {
    hand.bench.tell('text-too-long')
    return
  }
  const isLink = /^https?:\/\/\S+$/.test(text)
  const kind = isLink ? 'link' : text.length <= 600 ? 'note' : 'text'
  const [w, h] = kind === 'note' ? [NOTE.width, NOTE.height] : kind === 'link' ? [520, 100] : [700, 200]
  const mark = uuidv7()
  const place = { mark, w, h, ...freePlace([...hand.ground.frame.prepared, ...hand.ground.marks], w, h, hand.middle()) }
  const { note, text: style } = hand.now.settings
  hand.do([
    {
      kind: 'add',
      add:
        kind === 'link'
          ? { ...place, free: true, kind, link: { url: text } }
          : kind === 'note'
            ? { ...place, free: true, kind, note: { ...note, text } }
            : { ...place, kind, text: { ...style, size: 28, text } },
    },
  ])
  hand.set({ selected: new Set([mark]), tool: 'select' })
}
