import type { Ink, Tint } from '../../wire/types.gen'

/** The class names of the tints and inks, written out so that the style build finds them. */
export const tintGround: Record<Tint, string> = {
  snow: 'bg-note-snow',
  apricot: 'bg-note-apricot',
  rose: 'bg-note-rose',
  lilac: 'bg-note-lilac',
  glacier: 'bg-note-glacier',
  moss: 'bg-note-moss',
}

export const tintFill: Record<Tint, string> = {
  snow: 'fill-note-snow',
  apricot: 'fill-note-apricot',
  rose: 'fill-note-rose',
  lilac: 'fill-note-lilac',
  glacier: 'fill-note-glacier',
  moss: 'fill-note-moss',
}

export const inkFill: Record<Ink, string> = {
  night: 'fill-ink-night',
  ember: 'fill-ink-ember',
  fern: 'fill-ink-fern',
  lake: 'fill-ink-lake',
  plum: 'fill-ink-plum',
  snow: 'fill-ink-snow',
}

export const inkStroke: Record<Ink, string> = {
  night: 'stroke-ink-night',
  ember: 'stroke-ink-ember',
  fern: 'stroke-ink-fern',
  lake: 'stroke-ink-lake',
  plum: 'stroke-ink-plum',
  snow: 'stroke-ink-snow',
}

export const inkText: Record<Ink, string> = {
  night: 'text-ink-night',
  ember: 'text-ink-ember',
  fern: 'text-ink-fern',
  lake: 'text-ink-lake',
  plum: 'text-ink-plum',
  snow: 'text-ink-snow',
}

export const inkGround: Record<Ink, string> = {
  night: 'bg-ink-night',
  ember: 'bg-ink-ember',
  fern: 'bg-ink-fern',
  lake: 'bg-ink-lake',
  plum: 'bg-ink-plum',
  snow: 'bg-ink-snow',
}

export const tints = Object.keys(tintGround) as Tint[]
export const inks = Object.keys(inkFill) as Ink[]

/** The value of a colour token where a part stands, for painting on a canvas. */
export const token = (name: string, of: Element = document.documentElement) =>
  getComputedStyle(of).getPropertyValue(`--color-${name}`)
