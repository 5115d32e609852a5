import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Staff } from '../../wire/lesson'
import type { Element } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Who talks with whom about this question. */
export function Talking({ mark, staff }: { mark: Element; staff: Staff }) {
  const { t, i18n } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const { talk } = staff.state
  if (talk?.poll !== mark.id) return null
  const names = (ids: string[]) =>
    new Intl.ListFormat(i18n.language).format(ids.map((id) => people.get(id)?.name ?? t('frame.somebody')))
  return (
    <section aria-label={t('asking.talking')} className="rounded-xl border border-line bg-paper p-4">
      <h3 className="font-semibold">{t('asking.talking')}</h3>
      <ul className="mt-1 max-h-64 overflow-auto">
        {talk.groups.map((g) => (
          <li key={g.join()} className="border-b border-line py-1 last:border-0">
            {names(g)}
          </li>
        ))}
      </ul>
      {talk.alone && talk.alone.length > 0 && (
        <p className="mt-2 text-amber">{t('asking.alone', { names: names(talk.alone) })}</p>
      )}
      <Button className="mt-3" onClick={() => void lesson.give({ kind: 'talk', talk: {} })}>
        {t('asking.talkOver')}
      </Button>
    </section>
  )
}
