import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { Refusal } from '../kit/Refusal'
import type { Code } from '../wire/types.gen'
import { NameList, type Listed } from './NameList'

type Props = {
  title: string
  /** The class that the names come into; a new one without. */
  of?: string
  /** It asks for a name too. */
  named?: boolean
  /** What the button says, by count. */
  yes: 'classes.make' | 'classes.addCount'
  onClose: () => void
  onTake: (list: Listed, name: string) => Promise<Code | null>
}

/** A list of names, looked through before it is taken. */
export function ListDialog({ title, of, named = false, yes, onClose, onTake }: Props) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [listed, setListed] = useState<Listed>({ list: '' })
  const [count, setCount] = useState(0)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function take() {
    setBusy(true)
    const refused = await onTake(listed, name)
    if (!refused) return onClose()
    setProblem(refused)
    setBusy(false)
  }
  return (
    <Dialog wide open onOpenChange={onClose} title={title}>
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          void take()
        }}
      >
        {named && (
          <Field label={t('classes.name')} value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
        )}
        <NameList of={of} listed={listed} onListed={setListed} onCount={setCount} />
        <Button type="submit" look="main" size="large" disabled={busy || count === 0 || (named && !name.trim())}>
          {t(yes, { count })}
        </Button>
        <Refusal code={problem} />
      </form>
    </Dialog>
  )
}
