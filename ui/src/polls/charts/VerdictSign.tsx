import { Check, CircleDashed, X } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Verdict } from '../../wire/types.gen'

const signs = {
  right: { Sign: Check, look: 'text-fern-deep' },
  partly: { Sign: CircleDashed, look: 'text-amber' },
  wrong: { Sign: X, look: 'text-rose' },
}

/** Right, partly or wrong, by a sign with its word, which is written beside it where it is named. */
export function VerdictSign({ verdict, named }: { verdict?: Verdict; named?: boolean }) {
  const { t } = useTranslation()
  if (!verdict) return null
  const { Sign, look } = signs[verdict]
  if (named)
    return (
      <span className={`inline-flex items-center gap-1 ${look}`}>
        <Sign size="1.1em" aria-hidden="true" /> {t(`poll.verdict_${verdict}`)}
      </span>
    )
  return (
    <span className={look}>
      <Sign size="1.1em" role="img" aria-label={t(`poll.verdict_${verdict}`)} />
    </span>
  )
}
