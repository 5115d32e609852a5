import type { TFunction } from 'i18next'
import type { Person } from '../../wire/types.gen'

/** Frames of students or groups in a row, to be gone through. */
export type Gallery = { frame: string; stops: Array<{ owner: string; name: string }> }

/** Whose work it is, as the teacher knows them. */
export const whose = (owner: string, people: ReadonlyMap<string, Person>, t: TFunction) =>
  owner.startsWith('group-')
    ? t('groups.name', { n: owner.slice(6) })
    : (people.get(owner)?.name ?? t('frame.somebody'))

/** The same in another order, each as likely as any other (Fisher and Yates). */
export function mixed<T>(list: readonly T[]): T[] {
  const all = [...list]
  for (let i = all.length - 1; i > 0; i--) {
    const j = Math.floor(Math.random() * (i + 1))
    ;[all[i], all[j]] = [all[j]!, all[i]!]
  }
  return all
}
