import {
  FoldHorizontal,
  MousePointer2,
  UnfoldHorizontal,
  Pencil,
  Redo2,
  StickyNote,
  Trash2,
  Type,
  Undo2,
  type LucideIcon,
} from 'lucide-react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element, Ink, Tint } from '../wire/types.gen'
import { inkGround, inks, tintGround, tints } from './colours'
import { penWidths, type Hand } from './hand'

type Props = {
  hand: Hand
  change: (part: Partial<Hand>) => void
  mayAdd: boolean
  /** The mark that is selected and may be changed. */
  mark: Element | null
  onNew: (kind: 'note' | 'text') => void
  onStyle: (mark: Element, style: { tint?: Tint; ink?: Ink; width?: number; w?: number }) => void
  onEdit: (mark: Element) => void
  onRemove: (mark: Element) => void
  undo: (() => void) | null
  redo: (() => void) | null
  /** More for the ledge: what a teacher may do with the selected mark, the saved sign. */
  children?: ReactNode
}

/** The tools, lying under the frame, with what the chosen one offers right on the ledge. */
export function Ledge(props: Props) {
  const { hand, change, mayAdd, onNew, undo, redo, children } = props
  const { t } = useTranslation()
  const pick = (tool: Hand['tool']) => change({ tool, selected: null, editing: null })
  return (
    <div
      role="toolbar"
      aria-label={t('ledge.label')}
      className="flex flex-wrap items-center gap-x-1 gap-y-1 border-t-3 border-edge bg-paper px-2 py-1.5"
    >
      <Tool icon={MousePointer2} name={t('ledge.move')} on={hand.tool === 'move'} onClick={() => pick('move')} />
      {mayAdd && (
        <>
          <Tool icon={Pencil} name={t('ledge.pen')} on={hand.tool === 'pen'} onClick={() => pick('pen')} />
          <Tool icon={StickyNote} name={t('ledge.note')} onClick={() => onNew('note')} />
          <Tool icon={Type} name={t('ledge.text')} onClick={() => onNew('text')} />
          <Tool icon={Undo2} name={t('ledge.undo')} onClick={undo} />
          <Tool icon={Redo2} name={t('ledge.redo')} onClick={redo} />
        </>
      )}
      <Offers {...props} />
      <div className="ms-auto flex items-center gap-2 px-1">{children}</div>
    </div>
  )
}

/** What the tool, or the selected mark, offers. */
function Offers({ hand, change, mark, onStyle, onEdit, onRemove }: Props) {
  const { t } = useTranslation()
  if (hand.tool === 'pen') {
    return (
      <Group>
        <Swatches
          name={t('ledge.ink')}
          all={inks}
          words="inks"
          ground={inkGround}
          value={hand.pen.ink}
          onPick={(ink) => change({ pen: { ...hand.pen, ink } })}
        />
        <Widths value={hand.pen.width} onPick={(width) => change({ pen: { ...hand.pen, width } })} />
      </Group>
    )
  }
  if (!mark) return null
  return (
    <Group>
      {mark.kind === 'note' && (
        <Swatches
          name={t('ledge.tint')}
          all={tints}
          words="tints"
          ground={tintGround}
          square
          value={mark.note.tint}
          onPick={(tint) => onStyle(mark, { tint })}
        />
      )}
      {(mark.kind === 'text' || mark.kind === 'stroke') && (
        <Swatches
          name={t('ledge.ink')}
          all={inks}
          words="inks"
          ground={inkGround}
          value={mark.kind === 'text' ? mark.text.ink : mark.stroke.ink}
          onPick={(ink) => onStyle(mark, { ink })}
        />
      )}
      {mark.kind === 'stroke' && <Widths value={mark.stroke.width} onPick={(width) => onStyle(mark, { width })} />}
      {(mark.kind === 'note' || mark.kind === 'text') && (
        <>
          <Tool icon={Type} name={t('ledge.edit')} onClick={() => onEdit(mark)} />
          <Tool
            bare
            icon={UnfoldHorizontal}
            name={t('ledge.wider')}
            onClick={mark.x + mark.w + 60 <= 1600 && mark.w < 900 ? () => onStyle(mark, { w: mark.w + 60 }) : null}
          />
          <Tool
            bare
            icon={FoldHorizontal}
            name={t('ledge.narrower')}
            onClick={mark.w > 200 ? () => onStyle(mark, { w: mark.w - 60 }) : null}
          />
        </>
      )}
      <Tool bare icon={Trash2} name={t('ledge.remove')} onClick={() => onRemove(mark)} />
    </Group>
  )
}

const Group = ({ children }: { children: ReactNode }) => (
  <div className="flex flex-wrap items-center border-line sm:gap-1 sm:border-s sm:ps-2">{children}</div>
)

type ToolProps = { icon: LucideIcon; name: string; on?: boolean; bare?: boolean; onClick: (() => void) | null }

/** A tool with its name under its sign; `bare` ones show the sign alone. */
function Tool({ icon: Icon, name, on, bare, onClick }: ToolProps) {
  return (
    <button
      type="button"
      aria-label={bare ? name : undefined}
      title={bare ? name : undefined}
      aria-pressed={on}
      disabled={!onClick}
      onClick={() => onClick?.()}
      className={`flex min-h-12 flex-col items-center justify-center rounded-lg px-1 text-[12px] sm:px-1.5 leading-none font-semibold ${bare ? 'min-w-8 sm:min-w-9' : 'min-w-13'} ${on ? 'bg-dusk text-paper' : 'text-slate hover:bg-mist hover:text-night disabled:text-edge disabled:hover:bg-transparent'}`}
    >
      <Icon size={20} aria-hidden="true" className={bare ? '' : 'mb-1'} />
      {!bare && name}
    </button>
  )
}

type SwatchProps<C extends string> = {
  name: string
  all: readonly C[]
  words: 'inks' | 'tints'
  ground: Record<C, string>
  square?: boolean
  value: C
  onPick: (colour: C) => void
}

function Swatches<C extends string>({ name, all, words, ground, square, value, onPick }: SwatchProps<C>) {
  const { t } = useTranslation()
  return (
    <div role="group" aria-label={name} className="flex items-center gap-0.5">
      {all.map((colour) => (
        <button
          key={colour}
          type="button"
          aria-label={t(`${words}.${colour}`)}
          title={t(`${words}.${colour}`)}
          aria-pressed={colour === value}
          onClick={() => onPick(colour)}
          className={`grid h-9 w-7 place-items-center rounded-lg sm:w-9 ${colour === value ? 'outline-3 -outline-offset-2 outline-dusk' : 'hover:bg-mist'}`}
        >
          <span
            className={`size-5 border border-edge ${square ? 'rounded-[3px_3px_6px_6px]' : 'rounded-full'} ${ground[colour]}`}
          />
        </button>
      ))}
    </div>
  )
}

function Widths({ value, onPick }: { value: number; onPick: (width: number) => void }) {
  const { t } = useTranslation()
  return (
    <div role="group" aria-label={t('ledge.width')} className="flex items-center gap-0.5">
      {(Object.keys(penWidths) as Array<keyof typeof penWidths>).map((name) => (
        <button
          key={name}
          type="button"
          aria-label={t(`ledge.${name}`)}
          title={t(`ledge.${name}`)}
          aria-pressed={penWidths[name] === value}
          onClick={() => onPick(penWidths[name])}
          className={`grid h-8 w-9 place-items-center rounded-lg ${penWidths[name] === value ? 'outline-3 -outline-offset-2 outline-dusk' : 'hover:bg-mist'}`}
        >
          <span className="w-5 rounded-full bg-night" style={{ height: penWidths[name] / 2 }} />
        </button>
      ))}
    </div>
  )
}
