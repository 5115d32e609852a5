import { Plus, Trash2 } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Typed } from '../kit/fields/Typed'
import { useDesk, useDeskState } from './useDesk'
import { useState } from 'react'

/** The learning objectives of the board, to which frames and questions are tied. */
export function Objectives({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const list = useDeskState((s) => s.outline?.objectives ?? [])
  const frames = useDeskState((s) => s.frames)
  const [text, setText] = useState('')
  const save = (objectives: typeof list) => desk.change({ kind: 'board', board: { objectives } })
  const served = (id: string) => frames.flatMap((f, i) => (f.objectives?.includes(id) ? [i + 1] : [])).join(', ')
  return (
    <Dialog open onOpenChange={onClose} title={t('prepare.objectives')} text={t('prepare.objectivesText')}>
      <ol className="flex flex-col gap-2">
        {list.map((o, i) => (
          <li key={o.id} className="flex items-center gap-2">
            <div className="grow">
              <Typed
                label={t('prepare.objective', { n: i + 1 })}
                hideLabel
                required
                value={o.text}
                limit={300}
                onChange={(next) => save(list.map((p) => (p.id === o.id ? { ...p, text: next } : p)))}
              />
            </div>
            <span className="text-sm text-slate">
              {served(o.id) ? t('prepare.servedBy', { frames: served(o.id) }) : t('prepare.servedByNone')}
            </span>
            <Button
              look="quiet"
              aria-label={t('prepare.dropObjective', { n: i + 1 })}
              onClick={() => save(list.filter((p) => p.id !== o.id))}
            >
              <Trash2 size={17} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ol>
      <form
        className="mt-3 flex gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (text.trim() === '') return
          save([...list, { id: uuidv7(), text: text.trim() }])
          setText('')
        }}
      >
        <input
          aria-label={t('prepare.newObjective')}
          placeholder={t('prepare.newObjective')}
          value={text}
          maxLength={300}
          onChange={(e) => setText(e.target.value)}
          className="grow rounded-lg border border-edge px-2.5 py-1.5"
        />
        <Button type="submit">
          <Plus size={17} aria-hidden="true" />
          {t('prepare.addObjective')}
        </Button>
      </form>
    </Dialog>
  )
}
