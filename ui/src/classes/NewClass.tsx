import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { Field } from '../kit/Field'
import type { Code, NewClass as Ask } from '../wire/types.gen'
import { NameList } from './NameList'

type Props = { onClose: () => void; onMake: (to: Ask) => Promise<Code | null> }

/** Makes a class of a list of names. */
export function NewClass({ onClose, onMake }: Props) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [list, setList] = useState('')
  const [count, setCount] = useState(0)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function make() {
    setBusy(true)
    const refused = await onMake({ name, list })
    if (!refused) return onClose()
    setProblem(refused)
    setBusy(false)
  }
  return (
    <Dialog wide open onOpenChange={onClose} title={t('classes.new')}>
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <Field label={t('classes.name')} value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
        <NameList list={list} onList={setList} onCount={setCount} />
        <Button type="submit" look="main" size="large" disabled={busy || !name.trim() || count === 0}>
          {t('classes.make', { count })}
        </Button>
        <p role="alert" className="font-semibold text-rose empty:hidden">
          {problem && t(`refusal.${problem}`)}
        </p>
      </form>
    </Dialog>
  )
}
