import { X } from 'lucide-react'
import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'

type Props = {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  text?: string
  wide?: boolean
  children: ReactNode
}

/** A window begins at its first field, or at its main answer; the cross is for those who leave. */
function beginAtField(e: Event) {
  const window = e.currentTarget as HTMLElement
  const field = window.querySelector<HTMLElement>(
    'input:not([type=hidden]):not([disabled]), textarea:not([disabled]), select:not([disabled])',
  )
  const first = field ?? window.querySelector<HTMLElement>('[data-look="main"]')
  if (!first) return
  e.preventDefault()
  first.focus()
}

/** A window over the page; Escape and the cross close it. */
export function Dialog({ open, onOpenChange, title, text, wide, children }: Props) {
  const { t } = useTranslation()
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-night/45" />
        <Radix.Content
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[94dvh] w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col overflow-auto rounded-2xl border border-line bg-paper p-5 shadow-xl ${wide ? 'max-w-6xl' : 'max-w-xl'}`}
          {...(text ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={beginAtField}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-xl">{title}</Radix.Title>
            <Radix.Close aria-label={t('close')} className="rounded-lg p-1.5 text-slate hover:bg-mist">
              <X size={20} aria-hidden="true" />
            </Radix.Close>
          </div>
          {text && <Radix.Description className="mb-4 text-slate">{text}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
