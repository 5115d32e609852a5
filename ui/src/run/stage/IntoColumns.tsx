import { Columns3 } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../../kit/Button'
import { isBeside } from '../../rules/pieces'
import { isRemoved } from '../../rules/standing'
import type { Element } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Once a frame is so full that notes lie beside it: one tap lays them in columns, where all can be read. */
export function IntoColumns({ frame, marks }: { frame: string; marks: readonly Element[] }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  if (!marks.some((m) => isBeside(m) && !isRemoved(m))) return null
  // Notes have no column yet: in one, they stand beside each other over the whole width.
  const columns = [{ id: uuidv7() }]
  return (
    <Button onClick={() => void lesson.give({ kind: 'lay', lay: { frame, layout: { columns } } })}>
      <Columns3 size={17} aria-hidden="true" />
      {t('spread.columns')}
    </Button>
  )
}
