import { Lasso, SquareDashedMousePointer } from 'lucide-react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useHand, useHandState } from '../hand/useHand'
import { Group, ToolButton } from './ledgeParts'

/** What the bare hand offers: how it catches several things at once. */
export function CatchOffers({ children }: { children?: ReactNode }) {
  const { t } = useTranslation()
  const hand = useHand()
  const lasso = useHandState((s) => s.settings.select.lasso)
  return (
    <>
      <Group name={t('ledge.catch')}>
        <ToolButton
          row
          icon={SquareDashedMousePointer}
          name={t('ledge.catchBox')}
          on={!lasso}
          onClick={() => hand.settle('select', { lasso: false })}
        />
        <ToolButton
          row
          icon={Lasso}
          name={t('ledge.catchLasso')}
          on={lasso}
          onClick={() => hand.settle('select', { lasso: true })}
        />
      </Group>
      <span className="grow" />
      {children}
    </>
  )
}
