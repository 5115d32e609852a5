import { useTranslation } from 'react-i18next'
import type { Code } from '../wire/types.gen'

/** Why something was refused, and what to do; nothing without a code. */
export function Refusal({ code }: { code: Code | null | undefined }) {
  const { t } = useTranslation()
  return (
    <p role="alert" className="font-semibold text-rose empty:hidden">
      {code && t(`refusal.${code}`)}
    </p>
  )
}
