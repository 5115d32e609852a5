import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { GridEditor } from '../grid/GridEditor'
import { Pick } from '../kit/fields/Pick'
import { Dialog } from '../kit/windows/Dialog'
import { useMe } from '../wire/hooks/useMe'
import { useDesk, useDeskState } from './useDesk'

/** By what work is judged: a grid for the whole lesson, and one for each frame that needs its own. */
export function Criteria({ frame, onClose }: { frame: string; onClose: () => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const scale = useMe().data?.teacher?.scale ?? []
  const frames = useDeskState((s) => s.frames)
  const whole = useDeskState((s) => s.outline?.criteria) ?? []
  const [of, choose] = useState(frame)
  const nameOf = (i: number) => `${i + 1}. ${frames[i]!.title || frames[i]!.prompt || t('prepare.untitled')}`
  const rooms = [
    ...frames.map((f, i) => ({ value: f.id, name: nameOf(i), criteria: f.criteria ?? [] })),
    { value: '', name: t('grid.whole'), criteria: whole },
  ]
  const here = rooms.find((r) => r.value === of) ?? rooms.at(-1)!
  return (
    <Dialog wide open onOpenChange={onClose} title={t('grid.title')} text={t('grid.text')}>
      <div className="flex flex-col gap-4">
        <Pick
          label={t('grid.of')}
          value={here.value}
          options={rooms.map((r) => ({
            value: r.value,
            name: r.criteria.length > 0 ? `${r.name} (${r.criteria.length})` : r.name,
          }))}
          onPick={choose}
        />
        <GridEditor
          key={here.value}
          criteria={here.criteria}
          scale={scale}
          others={rooms.filter((r) => r.value !== here.value && r.criteria.length > 0)}
          onChange={(criteria) =>
            here.value ? desk.set(here.value, { criteria }) : desk.change({ kind: 'board', board: { criteria } })
          }
        />
      </div>
    </Dialog>
  )
}
