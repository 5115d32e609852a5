import {
  AlignCenter,
  AlignLeft,
  AlignRight,
  Bold,
  BringToFront,
  Copy,
  Group as GroupIcon,
  List,
  ListOrdered,
  PencilLine,
  SendToBack,
  SlidersHorizontal,
  Spline,
  ThumbsUp,
  Trash2,
  Volume2,
} from 'lucide-react'
import { Suspense, useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useStore } from 'zustand'
import { part } from '../../kit/part'
import '../../words/windows'
import { useBench } from '../../wire/hooks/useLesson'
import type { Element, Tint } from '../../wire/types.gen'
import { isWritten, textOf } from '../paint/geometry'
import { useHand, useHandState } from '../hand/useHand'
import { focusBehind } from '../hand/focus'
import { Group, Inks, Sizes, Tints, ToolButton, Widths } from './ledgeParts'
import { noteSizes, textSizes, widths } from '../hand/settings'
import { canSpeak, speak } from '../hand/speech'
import { CatchOffers } from './CatchOffers'
import { FormButton, forms, HeadsChoice } from './ToolOffers'

const Arrange = part(() => import('./ArrangeOffers'))

/** The value that all marks share; undefined where they differ. */
function shared<V>(marks: Element[], value: (mark: Element) => V | undefined): V | undefined {
  const values = new Set(marks.map(value))
  return values.size === 1 ? [...values][0] : undefined
}

const inkOf = (m: Element) =>
  m.kind === 'text'
    ? m.text.ink
    : m.kind === 'stroke'
      ? m.stroke.ink
      : m.kind === 'shape'
        ? m.shape.ink
        : m.kind === 'connector'
          ? m.connector.ink
          : undefined

/** What can be done with what is selected. */
export default function MarkOffers({ children }: { children?: ReactNode }) {
  const { t } = useTranslation()
  const hand = useHand()
  const lesson = useBench()
  useStore(lesson.state, (s) => s.sheets)
  useHandState((s) => s.selected)
  const [arranging, setArranging] = useState(false)
  const picked = hand.picked()
  const mine = hand.mine()
  const single = picked.length === 1 ? picked[0]! : null
  if (picked.length === 0) return <CatchOffers>{children}</CatchOffers>
  const kinds = new Set(mine.map((m) => m.kind))
  const only = kinds.size === 1 ? [...kinds][0] : null
  const inked = mine.length > 0 && mine.every((m) => inkOf(m) !== undefined)
  return (
    <>
      {picked.length > 1 && (
        <span className="px-1 text-sm font-semibold text-slate">{t('ledge.selected', { count: picked.length })}</span>
      )}
      {single?.kind === 'note' && single.author !== hand.ground.me && (
        <ToolButton
          row
          icon={ThumbsUp}
          name={t('ledge.agree')}
          on={(single.agreed ?? []).includes(hand.ground.me)}
          onClick={hand.ground.works ? () => hand.agree(single) : null}
        />
      )}
      {only === 'note' && (
        <>
          <Tints
            name={t('ledge.tint')}
            value={shared(mine, (m) => (m.kind === 'note' ? m.note.tint : undefined))}
            onPick={(tint) => hand.style((m) => (m.kind === 'note' ? { tint: tint as Tint } : null))}
          />
          <Sizes
            all={noteSizes}
            value={shared(mine, (m) => (m.kind === 'note' ? m.note.size || 28 : undefined))}
            onPick={(size) => hand.style(() => ({ size }))}
          />
        </>
      )}
      {only === 'shape' && single?.kind === 'shape' && (
        <Group name={t('ledge.form')}>
          {forms.map((form) => (
            <FormButton
              key={form}
              form={form}
              on={single.shape.form === form}
              onPick={() => hand.style(() => ({ form }))}
            />
          ))}
        </Group>
      )}
      {inked && <Inks value={shared(mine, inkOf)} onPick={(ink) => hand.style(() => ({ ink }))} />}
      {only === 'shape' && (
        <Tints
          none
          name={t('ledge.fill')}
          value={shared(mine, (m) => (m.kind === 'shape' ? (m.shape.fill ?? '') : undefined))}
          onPick={(fill) => hand.style(() => ({ fill }))}
        />
      )}
      {only === 'connector' && (
        <HeadsChoice
          value={shared(mine, (m) => (m.kind === 'connector' ? (m.connector.heads ?? '') : undefined))}
          onPick={(heads) => hand.style(() => ({ heads }))}
        />
      )}
      {(only === 'shape' || only === 'connector' || only === 'stroke') && (
        <Widths
          all={
            only === 'stroke' && single?.kind === 'stroke'
              ? widths[single.stroke.nib || 'pen']
              : only === 'stroke'
                ? widths.pen
                : widths[only]
          }
          value={shared(mine, (m) =>
            m.kind === 'shape'
              ? m.shape.width
              : m.kind === 'connector'
                ? m.connector.width
                : m.kind === 'stroke'
                  ? m.stroke.width
                  : undefined,
          )}
          onPick={(width) => hand.style(() => ({ width }))}
        />
      )}
      {only === 'text' && <TextOffers marks={mine} />}
      {mine.length > 0 && (
        <Group>
          {single && isWritten(single) && (
            <ToolButton
              bare
              icon={PencilLine}
              name={single.kind === 'picture' ? t('ledge.describe') : t('ledge.edit')}
              hotkey="Enter"
              onClick={() => hand.edit(single.id)}
            />
          )}
          {only === 'stroke' && (
            <ToolButton bare icon={Spline} name={t('ledge.smooth')} onClick={() => void hand.smooth()} />
          )}
          <ToolButton bare icon={Copy} name={t('ledge.duplicate')} hotkey="Ctrl D" onClick={() => hand.duplicate()} />
          {mine.length > 1 && (
            <ToolButton
              bare
              icon={GroupIcon}
              name={mine.every((m) => m.group && m.group === mine[0]!.group) ? t('ledge.ungroup') : t('ledge.group')}
              hotkey="Ctrl G"
              onClick={() => hand.group()}
            />
          )}
          <ToolButton
            bare
            icon={BringToFront}
            name={t('ledge.front')}
            hotkey="Ctrl ↑"
            onClick={() => hand.stack('front')}
          />
          <ToolButton
            bare
            icon={SendToBack}
            name={t('ledge.back')}
            hotkey="Ctrl ↓"
            onClick={() => hand.stack('back')}
          />
          <ToolButton
            bare
            icon={SlidersHorizontal}
            name={t('ledge.arrange')}
            expanded={arranging}
            onClick={() => setArranging(!arranging)}
          />
          <ToolButton
            bare
            icon={Trash2}
            name={t('ledge.remove')}
            hotkey="Delete"
            onClick={() => focusBehind(hand.now.selected, () => hand.remove())}
          />
        </Group>
      )}
      {single && textOf(single) && canSpeak && (
        <ToolButton bare icon={Volume2} name={t('ledge.read')} onClick={() => speak(textOf(single))} />
      )}
      {arranging && mine.length > 0 && (
        <Suspense fallback={null}>
          <Arrange />
        </Suspense>
      )}
      <span className="grow" />
      {children}
    </>
  )
}

const alignIcons = { '': AlignLeft, centre: AlignCenter, end: AlignRight }

function TextOffers({ marks }: { marks: Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const text = (m: Element) => (m.kind === 'text' ? m.text : undefined)
  const bold = shared(marks, (m) => text(m)?.bold ?? false)
  const align = shared(marks, (m) => text(m)?.align ?? '')
  const list = shared(marks, (m) => text(m)?.list ?? '')
  return (
    <>
      <Sizes
        all={textSizes}
        value={shared(marks, (m) => text(m)?.size)}
        onPick={(size) => hand.style(() => ({ size }))}
      />
      <Group name={t('ledge.lettering')}>
        <ToolButton
          bare
          icon={Bold}
          name={t('ledge.bold')}
          on={bold}
          onClick={() => hand.style(() => ({ bold: !bold }))}
        />
        {(['', 'centre', 'end'] as const).map((to) => (
          <ToolButton
            key={to}
            bare
            icon={alignIcons[to]}
            name={t(`aligns.${to || 'start'}`)}
            on={align === to}
            onClick={() => hand.style(() => ({ align: to }))}
          />
        ))}
        <ToolButton
          bare
          icon={List}
          name={t('ledge.bullets')}
          on={list === 'bullets'}
          onClick={() => hand.style(() => ({ list: list === 'bullets' ? '' : 'bullets' }))}
        />
        <ToolButton
          bare
          icon={ListOrdered}
          name={t('ledge.numbers')}
          on={list === 'numbers'}
          onClick={() => hand.style(() => ({ list: list === 'numbers' ? '' : 'numbers' }))}
        />
      </Group>
    </>
  )
}
