import { ArrowRight, CircleDashed, Minus, MoveHorizontal, SquareDashed, WandSparkles } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Form, Heads } from '../../wire/types.gen'
import { useHand, useHandState } from '../hand/useHand'
import { Group, Inks, Tints, ToolButton, Widths } from './ledgeParts'
import { shapePath } from '../paint/outline'
import { widths } from '../hand/settings'
import { signs, StampSign } from '../paint/stamps'

export const forms: Form[] = ['rect', 'rounded', 'ellipse', 'triangle', 'diamond', 'bubble', 'star']

/** What the tool in the hand offers. */
export default function ToolOffers() {
  const { t } = useTranslation()
  const hand = useHand()
  const tool = useHandState((s) => s.tool)
  const settings = useHandState((s) => s.settings)
  switch (tool) {
    case 'pen':
    case 'marker':
    case 'highlighter':
    case 'brush':
      return (
        <>
          <Inks value={settings[tool].ink} onPick={(ink) => hand.settle(tool, { ink })} />
          <Widths all={widths[tool]} value={settings[tool].width} onPick={(width) => hand.settle(tool, { width })} />
          {tool !== 'highlighter' && (
            <Group>
              <ToolButton
                bare
                icon={WandSparkles}
                name={t('ledge.offers')}
                on={settings.tidy.offers}
                onClick={() => hand.settle('tidy', { offers: !settings.tidy.offers })}
              />
            </Group>
          )}
        </>
      )
    case 'eraser':
      return (
        <>
          <Group name={t('ledge.erases')}>
            <ToolButton
              row
              icon={CircleDashed}
              name={t('ledge.erasePart')}
              on={settings.eraser.part}
              onClick={() => hand.settle('eraser', { part: true })}
            />
            <ToolButton
              row
              icon={SquareDashed}
              name={t('ledge.eraseWhole')}
              on={!settings.eraser.part}
              onClick={() => hand.settle('eraser', { part: false })}
            />
          </Group>
          <Widths
            all={widths.eraser}
            value={settings.eraser.radius}
            onPick={(radius) => hand.settle('eraser', { radius })}
          />
        </>
      )
    case 'shape':
      return (
        <>
          <Group name={t('ledge.form')}>
            {forms.map((form) => (
              <FormButton
                key={form}
                form={form}
                on={settings.shape.form === form}
                onPick={() => hand.settle('shape', { form })}
              />
            ))}
          </Group>
          <Inks value={settings.shape.ink} onPick={(ink) => hand.settle('shape', { ink })} />
          <Tints
            none
            name={t('ledge.fill')}
            value={settings.shape.fill}
            onPick={(fill) => hand.settle('shape', { fill })}
          />
          <Widths all={widths.shape} value={settings.shape.width} onPick={(width) => hand.settle('shape', { width })} />
        </>
      )
    case 'connector':
      return (
        <>
          <HeadsChoice value={settings.connector.heads} onPick={(heads) => hand.settle('connector', { heads })} />
          <Inks value={settings.connector.ink} onPick={(ink) => hand.settle('connector', { ink })} />
          <Widths
            all={widths.connector}
            value={settings.connector.width}
            onPick={(width) => hand.settle('connector', { width })}
          />
        </>
      )
    case 'stamp':
      return (
        <Group name={t('ledge.stamp')}>
          {signs.map((sign) => (
            <button
              type="button"
              key={sign}
              aria-label={t(`stamps.${sign}`)}
              title={t(`stamps.${sign}`)}
              aria-pressed={settings.stamp.sign === sign}
              onClick={() => hand.settle('stamp', { sign })}
              className={`grid size-10 place-items-center rounded-lg ${settings.stamp.sign === sign ? 'outline-3 -outline-offset-2 outline-dusk' : 'hover:bg-mist'}`}
            >
              <StampSign sign={sign} className="size-8" />
            </button>
          ))}
        </Group>
      )
    case 'pointer':
      return <p className="px-1 text-sm text-slate">{t('ledge.pointerHint')}</p>
    default:
      return null
  }
}

export function FormButton({ form, on, onPick }: { form: Form; on: boolean; onPick: () => void }) {
  const { t } = useTranslation()
  return (
    <button
      type="button"
      aria-label={t(`forms.${form}`)}
      title={t(`forms.${form}`)}
      aria-pressed={on}
      onClick={onPick}
      className={`grid size-9 place-items-center rounded-lg ${on ? 'bg-dusk text-paper' : 'text-slate hover:bg-mist hover:text-night'}`}
    >
      <svg
        viewBox="-2 -2 26 22"
        className="h-5 w-6 fill-none stroke-current"
        strokeWidth="2"
        strokeLinejoin="round"
        aria-hidden="true"
      >
        <path d={shapePath(form, 22, 18)} />
      </svg>
    </button>
  )
}

const headIcons = { '': Minus, to: ArrowRight, both: MoveHorizontal }

export function HeadsChoice({ value, onPick }: { value: Heads | undefined; onPick: (heads: Heads) => void }) {
  const { t } = useTranslation()
  return (
    <Group name={t('ledge.heads')}>
      {(['', 'to', 'both'] as const).map((heads) => (
        <ToolButton
          key={heads}
          bare
          icon={headIcons[heads]}
          name={t(`heads.${heads || 'none'}`)}
          on={value === heads}
          onClick={() => onPick(heads)}
        />
      ))}
    </Group>
  )
}
