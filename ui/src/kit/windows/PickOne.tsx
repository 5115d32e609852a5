import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../Button'
import { Dialog } from './Dialog'
import { Refusal } from '../Refusal'
import { codeOf } from '../../wire/http'
import type { Code } from '../../wire/types.gen'

type Props = {
  title: string
  text: string
  label: string
  yes: string
  options: ReadonlyArray<{ id: string; name: string }>
  onClose: () => void
  onPick: (id: string) => Promise<void>
}

/** Asks for one of a few, and does something with it. */
export function PickOne({ title, text, label, yes, options, onClose, onPick }: Props) {
  const { t } = useTranslation()
  const [picked, pick] = useState('')
  const [problem, setProblem] = useState<Code | null>(null)
  async function attempt() {
    setProblem(null)
    try {
      await onPick(picked)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={title} text={text}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void attempt()
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          {label}
          <select
            className="rounded-xl border-2 border-edge bg-paper px-3 py-2 font-normal"
            value={picked}
            onChange={(e) => pick(e.target.value)}
          >
            <option value="">{t('choose')}</option>
            {options.map((o) => (
              <option key={o.id} value={o.id}>
                {o.name}
              </option>
            ))}
          </select>
        </label>
        <Button type="submit" look="main" size="large" disabled={!picked}>
          {yes}
        </Button>
        <Refusal code={problem} />
      </form>
    </Dialog>
  )
}
