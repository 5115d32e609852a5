import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { codeOf } from '../wire/http'
import type { Code } from '../wire/types.gen'

type Props = {
  title: string
  text?: string
  label: string
  value: string
  /** Names to choose from while typing. */
  known?: string[]
  onSave: (name: string) => Promise<void>
  onClose: () => void
}

/** Asks for a name. */
export function AskName({ title, text, label, value, known = [], onSave, onClose }: Props) {
  const { t } = useTranslation()
  const [name, setName] = useState(value)
  const [problem, setProblem] = useState<Code | null>(null)
  return (
    <Dialog open onOpenChange={onClose} title={title} text={text}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          onSave(name.trim()).catch((error: unknown) => setProblem(codeOf(error)))
        }}
      >
        <Field
          label={label}
          value={name}
          maxLength={120}
          list={known.length > 0 ? 'known-names' : undefined}
          problem={problem && t(`refusal.${problem}`)}
          onChange={(e) => setName(e.target.value)}
        />
        <datalist id="known-names">
          {known.map((k) => (
            <option key={k} value={k} />
          ))}
        </datalist>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="main" type="submit">
            {title}
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
