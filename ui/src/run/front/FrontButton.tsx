import { Presentation } from 'lucide-react'
import { Suspense } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../../kit/part'
import type { Staff } from '../../wire/lesson'
import type { Front } from '../../wire/types.gen'

const FrontPanel = part(() => import('./FrontPanel'))

type Props = {
  session: string
  staff: Staff
  /** What the panel is open with; null while it is closed. */
  open: Front | null
  onOpen: (with_: Front | null) => void
}

/** Opens what the front screen shows; says on how many it is. */
export function FrontButton({ session, staff, open, onOpen }: Props) {
  const { t } = useTranslation()
  return (
    <>
      <button
        type="button"
        title={t('front.hint')}
        data-key="front"
        aria-keyshortcuts="Alt+F"
        className="inline-flex min-h-10 items-center gap-2 rounded-lg border border-edge bg-paper px-3 font-semibold hover:bg-mist"
        onClick={() => onOpen(staff.state.front)}
      >
        <Presentation size={18} aria-hidden="true" />
        <span className="max-sm:sr-only">{t('front.button')}</span>
        {staff.fronts > 0 && (
          <span
            className="size-2.5 rounded-full bg-glow"
            role="img"
            aria-label={t('front.on', { count: staff.fronts })}
          />
        )}
      </button>
      <Suspense fallback={null}>
        {open && <FrontPanel session={session} staff={staff} first={open} onClose={() => onOpen(null)} />}
      </Suspense>
    </>
  )
}
