import { useTranslation } from 'react-i18next'
import { Pick } from '../kit/fields/Pick'
import type { ClassPage, SetKeep } from '../wire/types.gen'
import type { Change } from './useClasses'

const months = [3, 6, 12, 24, 36, 60, 120, 0]

/** How long the records of a class are kept. */
export function Keep({ page, change }: { page: ClassPage; change: Change }) {
  const { t } = useTranslation()
  const options = [
    { value: '', name: t('keep.asSchool') },
    ...months.map((n) => ({
      value: String(n),
      name: n ? t('keep.months', { count: n }) : t('keep.always'),
    })),
  ]
  return (
    <Pick
      label={t('school.keepFor')}
      help={t('keep.help')}
      value={page.keep === undefined ? '' : String(page.keep)}
      options={options}
      onPick={(n) => void change(`/classes/${page.id}/keep`, (n ? { months: Number(n) } : {}) satisfies SetKeep)}
    />
  )
}
