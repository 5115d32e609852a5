import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Field } from '../../kit/fields/Field'
import { Refusal } from '../../kit/Refusal'
import { Dialog } from '../../kit/windows/Dialog'
import { call, codeOf } from '../../wire/http'
import type { Code, RenamePerson } from '../../wire/types.gen'
import { useLesson } from '../../wire/hooks/useLesson'

type Props = { id: string; name: string; onClose: () => void }

/** Gives somebody another name, on every screen. */
export function Rename({ id, name, onClose }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [to, setTo] = useState(name)
  const [problem, setProblem] = useState<Code | null>(null)
  async function rename() {
    try {
      await call('POST', `/sessions/${lesson.session}/people/${id}/name`, { name: to } satisfies RenamePerson)
      onClose()
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('rename.title', { name })} text={t('rename.text')}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          void rename()
        }}
      >
        <Field label={t('rename.name')} value={to} maxLength={200} onChange={(e) => setTo(e.target.value)} />
        <Refusal code={problem} />
        <Button type="submit" look="main" size="large" disabled={!to.trim() || to.trim() === name}>
          {t('rename.do')}
        </Button>
      </form>
    </Dialog>
  )
}
