import type { Arrangement } from './types.gen'

/** The owner of a group's sheet, by the group's number. */
export const groupOwner = (group: number) => `group-${group}`

/** Whose sheet somebody works on where a frame is shared like this; null for one without a group. */
export function ownerOf(arrangement: Arrangement, me: string, group: number | undefined): string | null {
  switch (arrangement) {
    case 'class':
      return 'class'
    case 'groups':
      return group ? groupOwner(group) : null
    case 'individual':
      return me
  }
}
