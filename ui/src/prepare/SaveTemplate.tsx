import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { call, codeOf } from '../wire/http'
import type { Code, Frame, NewTemplate, OwnTemplate } from '../wire/types.gen'
import { useDesk } from './useDesk'

/** Saves a frame as a template of one's own. */
export function SaveTemplate({ frame, onClose }: { frame: Frame; onClose: () => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const queries = useQueryClient()
  const [name, setName] = useState(frame.title)
  const [problem, setProblem] = useState<Code | null>(null)
  async function save() {
    try {
      await desk.settled()
      await call<OwnTemplate>('POST', `/boards/${desk.board}/templates`, {
        frame: frame.id,
        name,
      } satisfies NewTemplate)
      await queries.invalidateQueries({ queryKey: ['templates'] })
      onClose()
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('prepare.saveTemplate')} text={t('prepare.saveTemplateText')}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void save()
        }}
      >
        <Field
          label={t('prepare.templateName')}
          value={name}
          maxLength={120}
          problem={problem && t(`refusal.${problem}`)}
          onChange={(e) => setName(e.target.value)}
        />
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="main" type="submit">
            {t('prepare.save')}
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
