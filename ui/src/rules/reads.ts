import type { Element } from '../wire/types.gen'

/** What somebody reads of a mark, the same as the core's Words of what students add; undefined for what has none. */
export function readsOf(mark: Element): string | undefined {
  switch (mark.kind) {
    case 'note':
      return mark.note.text
    case 'text':
      return mark.text.text
    case 'reply':
      return mark.reply.text
    case 'remark':
      return mark.remark.text
    case 'shape':
      return mark.shape.text ?? ''
    case 'picture':
      return mark.picture.alt ?? ''
    case 'link':
      return `${mark.link.title ?? ''} ${mark.link.url}`.trim()
  }
  return undefined
}
