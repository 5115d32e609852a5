import { Layers } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { useHand, useHandState } from '../../frame/hand/useHand'
import { Button } from '../../kit/Button'
import '../../words/windows'

/** Makes one stack of the notes that are selected, which say the same; the first that was made lies on top. */
export function StackButton() {
  const { t } = useTranslation()
  const hand = useHand()
  const selected = useHandState((s) => s.selected)
  const notes = hand.ground.marks.filter((m) => selected.has(m.id) && m.kind === 'note' && !m.of)
  if (notes.length < 2 || notes.length < selected.size) return null
  const marks = notes.map((m) => m.id)
  return (
    <Button onClick={() => hand.do([{ kind: 'stack', stack: { stack: uuidv7(), marks } }])}>
      <Layers size={18} aria-hidden="true" />
      {t('stack.make')}
    </Button>
  )
}
