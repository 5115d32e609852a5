import { Check } from 'lucide-react'
import { useTranslation } from 'react-i18next'

/** Marks what is right, by a sign and a word. */
export function RightSign() {
  const { t } = useTranslation()
  return (
    <span className="relative inline-flex items-center gap-[0.25em] text-[0.85em] font-semibold text-fern-deep">
      <Check size="1.1em" aria-hidden="true" />
      {t('poll.right')}
    </span>
  )
}
