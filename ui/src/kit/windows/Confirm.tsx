import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { codeOf } from '../../wire/http'
import type { Code } from '../../wire/types.gen'
import { Button } from '../Button'
import { Dialog } from './Dialog'

type Props = {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  text: string
  /** What the button says that does it. */
  yes: string
  /** Does it; what it throws is told, and the window stays. */
  onYes: () => Promise<void>
}

/** Asks before something that cannot be taken back. */
export function Confirm({ open, onOpenChange, title, text, yes, onYes }: Props) {
  const { t } = useTranslation()
  const [problem, setProblem] = useState<Code | null>(null)
  async function attempt() {
    setProblem(null)
    try {
      await onYes()
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open={open} onOpenChange={onOpenChange} title={title} text={text}>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onOpenChange(false)}>{t('cancel')}</Button>
        <Button look="glow" onClick={() => void attempt()}>
          {yes}
        </Button>
      </div>
      {problem && (
        <p role="alert" className="mt-3 font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
    </Dialog>
  )
}
