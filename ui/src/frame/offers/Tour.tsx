import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import '../../words/windows'

type Props = { staff: boolean; onClose: () => void }

/** The stations of the tour: a part of the screen each, and the sentence about it. */
const stations = {
  student: ['frame', 'ledge', 'offers', 'saved'],
  staff: ['frame', 'ledge', 'trail', 'people'],
} as const

/** A short walk around the screen. It covers nothing, and goes at a key or a tap. */
export default function Tour({ staff, onClose }: Props) {
  const { t } = useTranslation()
  const here = stations[staff ? 'staff' : 'student'].filter((part) => document.querySelector(`[data-part="${part}"]`))
  const [at, setAt] = useState(0)
  const part = here[at]
  const next = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    // The focus goes back to where it came from.
    const before = document.activeElement
    next.current?.focus()
    return () => {
      if (before instanceof HTMLElement && before !== document.body && before.isConnected) before.focus()
      else document.querySelector<HTMLElement>('[data-part="workplace"]')?.focus({ preventScroll: true })
    }
  }, [])
  useEffect(() => {
    const key = (e: KeyboardEvent) => e.key === 'Escape' && onClose()
    document.addEventListener('keydown', key)
    return () => document.removeEventListener('keydown', key)
  }, [onClose])
  useEffect(() => {
    const target = document.querySelector<HTMLElement>(`[data-part="${part}"]`)
    target?.classList.add('tour-here')
    return () => target?.classList.remove('tour-here')
  }, [part])
  if (!part) return null
  const last = at === here.length - 1
  return (
    <div
      role="dialog"
      aria-label={t('tour.title')}
      className="fixed inset-x-3 top-16 z-40 mx-auto max-w-md rounded-2xl border border-line bg-paper p-4 shadow-xl"
    >
      <p className="mb-1 text-sm text-slate">{t('tour.step', { n: at + 1, of: here.length })}</p>
      <p className="mb-3" aria-live="polite">
        {t(`tour.${part}`)}
      </p>
      <div className="flex justify-end gap-2">
        {!last && (
          <Button look="quiet" onClick={onClose}>
            {t('tour.skip')}
          </Button>
        )}
        <Button look="main" ref={next} onClick={() => (last ? onClose() : setAt(at + 1))}>
          {last ? t('tour.done') : t('tour.next')}
        </Button>
      </div>
    </div>
  )
}
