import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { codeOf } from '../wire/http'
import type { ClassPage, Code } from '../wire/types.gen'

type Props = { page: ClassPage; onClose: () => void; onMake: (name: string) => Promise<void> }

/** The class of the next year: the same students under another name. */
export function NextYear({ page, onClose, onMake }: Props) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [problem, setProblem] = useState<Code | null>(null)
  async function make() {
    setProblem(null)
    try {
      await onMake(name)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('classes.next')} text={t('classes.nextText', page)}>
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <Field
          label={t('classes.name')}
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.target.value)}
          problem={problem && t(`refusal.${problem}`)}
        />
        <Button type="submit" look="main" size="large" disabled={!name.trim()}>
          {t('classes.nextMake')}
        </Button>
      </form>
    </Dialog>
  )
}
