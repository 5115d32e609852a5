import { useTranslation } from 'react-i18next'
import { Field } from './Field'

/** A moment as a field of this device's clock shows it. */
const asField = (at: number) => {
  const date = new Date(at)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}T${two(date.getHours())}:${two(date.getMinutes())}`
}

/** A day and a time until when something may be done, by the clock of this device; in milliseconds since 1970. */
export function DueField({ label, at, onAt }: { label: string; at: number; onAt: (at: number) => void }) {
  const { t } = useTranslation()
  return (
    <Field
      type="datetime-local"
      required
      label={label}
      help={t('homework.clock', { zone: Intl.DateTimeFormat().resolvedOptions().timeZone })}
      value={asField(at)}
      onChange={(e) => {
        const picked = new Date(e.target.value).getTime()
        if (!Number.isNaN(picked)) onAt(picked)
      }}
    />
  )
}

const EVENING = 18

/** The evening after so many days, from which one begins to choose. */
export function evening(days: number): number {
  const at = new Date()
  at.setDate(at.getDate() + days)
  at.setHours(EVENING, 0, 0, 0)
  return at.getTime()
}
