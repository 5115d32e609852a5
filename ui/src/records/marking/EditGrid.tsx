import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { GridEditor } from '../../grid/GridEditor'
import { Dialog } from '../../kit/windows/Dialog'
import { Refusal } from '../../kit/Refusal'
import { useAct } from '../../wire/hooks/useAct'
import { call } from '../../wire/http'
import type { Criterion, Frame, Level, SetCriteria } from '../../wire/types.gen'

type Props = {
  session: string
  frame?: Frame
  criteria: readonly Criterion[]
  scale: readonly Level[]
  frames: readonly Frame[]
  onClose: () => void
}

/** The grid of a frame, or of the whole lesson, changed while work is judged. */
export function EditGrid({ session, frame, criteria, scale, frames, onClose }: Props) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const { act, problem } = useAct()
  const [mine, setMine] = useState(criteria)
  async function save(next: Criterion[]) {
    const before = mine
    setMine(next)
    const refused = await act(() =>
      call('POST', `/sessions/${session}/criteria`, { frame: frame?.id, criteria: next } satisfies SetCriteria),
    )
    if (refused) setMine(before)
    await queries.invalidateQueries({ queryKey: ['record', session] })
  }
  const others = frames.flatMap((f, i) =>
    f.id !== frame?.id && f.criteria?.length ? [{ name: `${i + 1}. ${f.title}`, criteria: f.criteria }] : [],
  )
  return (
    <Dialog
      wide
      open
      onOpenChange={onClose}
      title={t('grid.titleOf', { name: frame ? frame.title || t('grid.frame') : t('grid.whole') })}
      text={t('grid.lessonText')}
    >
      <div className="flex flex-col gap-3">
        <Refusal code={problem} />
        <GridEditor criteria={mine} scale={scale} others={others} onChange={(next) => void save(next)} />
      </div>
    </Dialog>
  )
}
