import { useTranslation } from 'react-i18next'
import type { Code } from '../wire/types.gen'

/** Why something was refused, and what to do, in sight however far one has scrolled; nothing without a code. */
export function Refusal({ code }: { code: Code | null | undefined }) {
  const { t } = useTranslation()
  return (
    <p
      role="alert"
      className="sticky top-2 z-20 rounded-lg bg-rose-soft px-3 py-2 font-semibold text-rose empty:hidden"
    >
      {code && t(code === 'unavailable' ? 'unreachable' : `refusal.${code}`)}
    </p>
  )
}
