import { Check, CircleDashed, X } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Verdict } from '../../wire/types.gen'

const signs = {
  right: { Sign: Check, look: 'text-fern-deep' },
  partly: { Sign: CircleDashed, look: 'text-amber' },
  wrong: { Sign: X, look: 'text-rose' },
}

/** Right, partly or wrong, by a sign with its word. */
export function VerdictSign({ verdict }: { verdict?: Verdict }) {
  const { t } = useTranslation()
  if (!verdict) return null
  const { Sign, look } = signs[verdict]
  return (
    <span className={look}>
      <Sign size="1.1em" role="img" aria-label={t(`poll.verdict_${verdict}`)} />
    </span>
  )
}
