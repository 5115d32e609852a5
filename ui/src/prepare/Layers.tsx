import { Inbox, Infinity as Endless, Layers, Move, Pin } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useHand, useHandState } from '../frame/hand/useHand'
import { Group, ToolButton } from '../frame/offers/ledgeParts'
import type { Layer } from '../wire/types.gen'
import { useBenchState } from '../wire/hooks/useLesson'

const layers: Array<{ layer: Layer; icon: typeof Pin }> = [
  { layer: '', icon: Pin },
  { layer: 'piece', icon: Move },
  { layer: 'supply', icon: Endless },
]

const stays = ['cover', 'poll', 'table', 'connector']

/** Whether what is selected is fixed or a piece, and a switch that shows it for everything. */
export function LayersGroup({ shown, onShow }: { shown: boolean; onShow: () => void }) {
  const { t } = useTranslation()
  const hand = useHand()
  useBenchState((s) => s.sheets)
  useHandState((s) => s.selected)
  const marks = hand.mine().filter((m) => !stays.includes(m.kind))
  const all = new Set(marks.map((m) => m.layer ?? ''))
  const value = all.size === 1 ? [...all][0] : undefined
  const to = (layer: Layer) =>
    hand.style((m) => (stays.includes(m.kind) ? null : { layer, ...(layer === '' ? { tray: false } : {}) }))
  return (
    <>
      {shown && marks.length === 0 && <span className="text-sm text-slate">{t('prepare.legend')}</span>}
      {marks.length > 0 && (
        <Group name={t('prepare.inClass')}>
          {layers.map(({ layer, icon }) => (
            <ToolButton
              key={layer}
              row
              icon={icon}
              name={t(`prepare.layer_${layer || 'fixed'}`)}
              on={value === layer}
              onClick={() => to(layer)}
            />
          ))}
          {marks.every((m) => m.layer) && (
            <ToolButton
              row
              icon={Inbox}
              name={t('prepare.intoTray')}
              onClick={() => {
                hand.style(() => ({ tray: true }))
                hand.select([])
              }}
            />
          )}
        </Group>
      )}
      <ToolButton row icon={Layers} name={t('prepare.showLayers')} on={shown} onClick={onShow} />
    </>
  )
}
