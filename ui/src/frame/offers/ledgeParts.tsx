import type { LucideIcon } from 'lucide-react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Ink, Tint } from '../../wire/types.gen'
import { inkGround, inks, tintGround, tints } from '../paint/colours'

type ToolProps = {
  icon: LucideIcon
  name: string
  /** The key that does the same; shown in the tooltip. */
  hotkey?: string
  on?: boolean
  expanded?: boolean
  /** Shows the sign alone; the name is in the tooltip and for screen readers. */
  bare?: boolean
  /** Name beside the sign instead of under it. */
  row?: boolean
  onClick: (() => void) | null
}

/** A tool with its name. */
export function ToolButton({ icon: Icon, name, hotkey, on, expanded, bare, row, onClick }: ToolProps) {
  const place = bare
    ? 'min-h-9 min-w-9'
    : row
      ? 'min-h-9 flex-row gap-1.5 px-2'
      : 'min-h-12 min-w-11 flex-col px-0.5 md:min-w-12 md:px-1'
  return (
    <button
      type="button"
      aria-label={bare ? name : undefined}
      title={hotkey ? `${name} (${hotkey})` : bare ? name : undefined}
      aria-pressed={on}
      aria-expanded={expanded}
      aria-keyshortcuts={hotkey?.length === 1 ? hotkey : undefined}
      disabled={!onClick}
      onClick={() => onClick?.()}
      className={`flex items-center justify-center rounded-lg text-[12px] leading-none font-semibold whitespace-nowrap ${place} ${on ? 'bg-dusk text-paper' : 'text-slate hover:bg-mist hover:text-night disabled:text-edge disabled:hover:bg-transparent'}`}
    >
      <Icon size={bare || row ? 18 : 20} aria-hidden="true" className={bare || row ? '' : 'mb-1'} />
      {!bare && name}
    </button>
  )
}

/** A group of offers, set apart by a line. */
export const Group = ({ name, children }: { name?: string; children: ReactNode }) => (
  <div
    role={name ? 'group' : undefined}
    aria-label={name}
    className="flex shrink-0 items-center not-first:border-s not-first:border-line not-first:ps-2 turned:max-w-full turned:not-first:border-s-0 turned:not-first:ps-0"
  >
    {children}
  </div>
)

type ChipProps = { name: string; on: boolean; narrow?: boolean; onPick: () => void; children: ReactNode }

/** One of several looks to choose from; its name is in the tooltip and for screen readers. */
function Chip({ name, on, narrow, onPick, children }: ChipProps) {
  return (
    <button
      type="button"
      aria-label={name}
      title={name}
      aria-pressed={on}
      onClick={onPick}
      className={`grid h-9 place-items-center rounded-lg font-semibold ${narrow ? 'w-7 sm:w-8' : 'w-8'} ${on ? 'outline-3 -outline-offset-2 outline-dusk' : 'hover:bg-mist'}`}
    >
      {children}
    </button>
  )
}

type Picks<V> = { value: V | undefined; onPick: (value: V) => void }

export function Inks({ value, onPick }: Picks<Ink>) {
  const { t } = useTranslation()
  return (
    <Group name={t('ledge.ink')}>
      {inks.map((ink) => (
        <Swatch
          key={ink}
          name={t(`inks.${ink}`)}
          look={`rounded-full ${inkGround[ink]}`}
          on={ink === value}
          onPick={() => onPick(ink)}
        />
      ))}
    </Group>
  )
}

/** The tints; with `none`, also no fill at all. */
export function Tints({ value, onPick, name, none }: Picks<Tint | ''> & { name: string; none?: boolean }) {
  const { t } = useTranslation()
  return (
    <Group name={name}>
      {none && (
        <Swatch
          name={t('ledge.noFill')}
          look="rounded-[3px] bg-paper relative after:absolute after:inset-x-0 after:top-1/2 after:h-0.5 after:-rotate-45 after:bg-rose"
          on={value === ''}
          onPick={() => onPick('')}
        />
      )}
      {tints.map((tint) => (
        <Swatch
          key={tint}
          name={t(`tints.${tint}`)}
          look={`rounded-[3px_3px_6px_6px] ${tintGround[tint]}`}
          on={tint === value}
          onPick={() => onPick(tint)}
        />
      ))}
    </Group>
  )
}

function Swatch({ look, ...chip }: Omit<ChipProps, 'children'> & { look: string }) {
  return (
    <Chip narrow {...chip}>
      <span className={`size-5 border border-edge ${look}`} />
    </Chip>
  )
}

type Steps = Picks<number> & { all: readonly number[] }

/** Widths of a line, each shown as thick as it is. */
export function Widths({ all, value, onPick }: Steps) {
  const { t } = useTranslation()
  const names = ['ledge.thin', 'ledge.medium', 'ledge.thick']
  return (
    <Group name={t('ledge.width')}>
      {all.map((width, i) => (
        <Chip key={width} name={t(names[i]!)} on={width === value} onPick={() => onPick(width)}>
          <span className="w-5 rounded-full bg-night" style={{ height: Math.max(2, Math.min(18, width / 2)) }} />
        </Chip>
      ))}
    </Group>
  )
}

/** Sizes of letters. */
export function Sizes({ all, value, onPick }: Steps) {
  const { t } = useTranslation()
  const names = ['ledge.small', 'ledge.medium', 'ledge.large', 'ledge.huge']
  return (
    <Group name={t('ledge.size')}>
      {all.map((size, i) => (
        <Chip key={size} name={t(names[i]!)} on={size === value} onPick={() => onPick(size)}>
          <span style={{ fontSize: 12 + i * 4, lineHeight: 1 }} aria-hidden="true">
            a
          </span>
        </Chip>
      ))}
    </Group>
  )
}
