import { X } from 'lucide-react'
import { Dialog as Radix } from 'radix-ui'
import { useRef, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'

type Props = {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  text?: string
  wide?: boolean
  /** What has the focus after it, where it was opened by something else than a button of its own. */
  backTo?: () => HTMLElement | null
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

const ownsEscape = (at: EventTarget | null) => at instanceof Element && at.closest('[data-own-escape]') !== null

/** A window over the page; Escape and the cross close it. */
export function Dialog({ open, onOpenChange, title, text, wide, backTo, children }: Props) {
  const { t } = useTranslation()
  const escapes = useRef(false)
  const change = (to: boolean) => {
    if (!escapes.current) onOpenChange(to)
    escapes.current = false
  }
  return (
    <Radix.Root open={open} onOpenChange={change}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-night/45" />
        <Radix.Content
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[94dvh] w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col overflow-auto rounded-2xl border border-line bg-paper p-5 shadow-xl ${wide ? 'max-w-6xl' : 'max-w-xl'}`}
          {...(text ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={beginAtField}
          onCloseAutoFocus={(e) => {
            const back = backTo?.()
            if (!back) return
            e.preventDefault()
            back.focus()
          }}
          // What has something of its own to leave, as a note that is being written, has Escape first.
          onEscapeKeyDown={(e) => (escapes.current = ownsEscape(e.target))}
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
