import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  FoldHorizontal,
  ImageDown,
  RotateCcw,
  RotateCw,
  SquareDashed,
  UnfoldHorizontal,
} from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { aligned, spaced, type Edge } from '../hand/arrange'
import { copyAsPicture } from '../pictures/copyAsPicture'
import { useHand } from '../hand/useHand'
import { Group, ToolButton } from './ledgeParts'
import '../../words/windows'

const edges: Array<[Edge, typeof AlignStartVertical]> = [
  ['left', AlignStartVertical],
  ['middle', AlignCenterVertical],
  ['right', AlignEndVertical],
  ['top', AlignStartHorizontal],
  ['centre', AlignCenterHorizontal],
  ['bottom', AlignEndHorizontal],
]

/** Turning, sizes, lining up and spacing of what is selected. */
export default function Arrange() {
  const { t } = useTranslation()
  const hand = useHand()
  const mine = hand.mine()
  const dashed =
    mine.length > 0 &&
    mine.every((m) => (m.kind === 'shape' ? m.shape.dash : m.kind === 'connector' && m.connector.dash))
  const lines = mine.some((m) => m.kind === 'shape' || m.kind === 'connector')
  const wider = (by: number) =>
    hand.style((m) =>
      m.kind === 'connector' ? null : { w: Math.max(m.kind === 'stroke' ? 0 : 100, Math.min(1600 - m.x, m.w + by)) },
    )
  return (
    <Group name={t('ledge.arrange')}>
      <ToolButton bare icon={RotateCcw} name={t('ledge.turnLeft')} hotkey="[" onClick={() => hand.turn(-15)} />
      <ToolButton bare icon={RotateCw} name={t('ledge.turnRight')} hotkey="]" onClick={() => hand.turn(15)} />
      <ToolButton bare icon={UnfoldHorizontal} name={t('ledge.wider')} onClick={() => wider(60)} />
      <ToolButton bare icon={FoldHorizontal} name={t('ledge.narrower')} onClick={() => wider(-60)} />
      {lines && (
        <ToolButton
          bare
          icon={SquareDashed}
          name={t('ledge.dash')}
          on={dashed}
          onClick={() => hand.style((m) => (m.kind === 'shape' || m.kind === 'connector' ? { dash: !dashed } : null))}
        />
      )}
      <ToolButton bare icon={ImageDown} name={t('ledge.asPicture')} onClick={() => void copyAsPicture(hand.picked())} />
      {mine.length > 1 &&
        edges.map(([edge, icon]) => (
          <ToolButton
            key={edge}
            bare
            icon={icon}
            name={t(`edges.${edge}`)}
            onClick={() => hand.do(aligned(mine, edge))}
          />
        ))}
      {mine.length > 2 && (
        <>
          <ToolButton
            bare
            icon={AlignHorizontalSpaceBetween}
            name={t('ledge.spaceAcross')}
            onClick={() => hand.do(spaced(mine, 'across'))}
          />
          <ToolButton
            bare
            icon={AlignVerticalSpaceBetween}
            name={t('ledge.spaceDown')}
            onClick={() => hand.do(spaced(mine, 'down'))}
          />
        </>
      )}
    </Group>
  )
}
