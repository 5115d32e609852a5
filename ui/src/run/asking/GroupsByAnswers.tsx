import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import type { Staff } from '../../wire/lesson'
import type { Element } from '../../wire/types.gen'

const USUAL = 4

/** Groups by the answers to a question, for the next frame that groups share. */
export function GroupsByAnswers({ mark, staff }: { mark: Element; staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [made, tell] = useState(0)
  const make = async (by: 'like' | 'mixed') => {
    const size = staff.state.groupSize || USUAL
    if (await lesson.give({ kind: 'groups', groups: { size, by, poll: mark.id } })) tell(made + 1)
  }
  return (
    <section aria-label={t('asking.groups')} className="rounded-xl border border-line bg-paper p-4">
      <h3 className="font-semibold">{t('asking.groups')}</h3>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void make('mixed')}>{t('asking.groupsMixed')}</Button>
        <Button onClick={() => void make('like')}>{t('asking.groupsLike')}</Button>
      </div>
      <p role="status" className="mt-2 text-sm text-slate empty:hidden">
        {made > 0 && t('asking.groupsMade', { count: staff.state.groups?.filter((g) => g.length > 0).length ?? 0 })}
      </p>
    </section>
  )
}
