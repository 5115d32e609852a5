import { useTranslation } from 'react-i18next'
import { field } from './props'

type Props = { n: number; name?: string; onName: (to: string) => void; className?: string }

/** What the n-th mistake is called. */
export function MistakeName({ n, name, onName, className = 'grow' }: Props) {
  const { t } = useTranslation()
  return (
    <input
      aria-label={t('question.mistakeOf', { n })}
      placeholder={t('question.mistakeName')}
      value={name ?? ''}
      maxLength={80}
      dir="auto"
      onChange={(e) => onName(e.target.value)}
      className={`${field} ${className}`}
    />
  )
}
