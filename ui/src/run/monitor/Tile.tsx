import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../../frame/paint/Thumbnail'
import { useNow } from '../../kit/hooks/useNow'
import { workKey } from '../../wire/lesson'
import type { Element, Frame, StudentState } from '../../wire/types.gen'
import { useCalmState } from '../../wire/hooks/useCalm'
import { ago } from '../../words/words'
import type { Part } from './parts'

/** How often it is looked when somebody has done something last. */
const CALM_MS = 2000

const edges: Partial<Record<StudentState, string>> = {
  help: 'border-dusk ring-2 ring-dusk',
  quiet: 'border-amber ring-1 ring-amber',
}

type Props = {
  part: Part
  frame: Frame
  marks: readonly Element[]
  state: StudentState | undefined
  width: number
  /** It is one of those that are put side by side. */
  chosen: boolean
  onChoose: (part: string) => void
  onOpen: (part: string) => void
}

const samePart = (a: Part, b: Part) =>
  a.key === b.key && a.name === b.name && a.members === b.members && a.here === b.here

/** One part of a frame, live and small. */
export const Tile = memo(
  OneTile,
  (a, b) =>
    a.marks === b.marks &&
    a.frame === b.frame &&
    a.state === b.state &&
    a.width === b.width &&
    a.chosen === b.chosen &&
    a.onOpen === b.onOpen &&
    a.onChoose === b.onChoose &&
    samePart(a.part, b.part),
)

function OneTile({ part, frame, marks, state, width, chosen, onChoose, onOpen }: Props) {
  const { t } = useTranslation()
  const now = useNow()
  const at = useCalmState(
    (s) => Math.max(0, ...part.authors.map((id) => s.work.get(workKey(id, frame.id))?.at ?? 0)),
    CALM_MS,
  )
  const amount = t('run.amount', { count: marks.length })
  const last = at === 0 ? '' : (ago(at, now) ?? t('run.lastNow'))
  const { name, members, here } = part
  const said = state && state !== 'atWork' ? t(`states.${state}`) : ''
  return (
    <li
      className={`relative overflow-hidden rounded-xl border bg-paper ${chosen ? 'border-dusk ring-2 ring-dusk' : ((state && edges[state]) ?? 'border-line')} hover:border-dusk`}
    >
      <button
        type="button"
        data-tile={part.key}
        onClick={() => onOpen(part.key)}
        aria-label={t(members ? 'run.openGroup' : 'run.openLarge', { name, amount, last: said || last })}
        className="block w-full text-start"
      >
        <Thumbnail
          frame={frame}
          marks={marks}
          width={width}
          near={frame.arrangement === 'class'}
          label={t(members ? 'run.groupFrame' : 'run.studentFrame', { name })}
        />
        <span className="block border-t border-line px-2.5 py-1.5">
          <span className={`block truncate pe-7 font-semibold ${here ? '' : 'text-slate'}`}>{name}</span>
          {members && <span className="block truncate text-[13px]">{members}</span>}
          <span className="flex justify-between gap-2 text-[13px] text-slate">
            <span>{amount}</span>
            <span className="truncate">{here ? said || last : t('run.gone')}</span>
          </span>
        </span>
      </button>
      <input
        type="checkbox"
        aria-label={t('monitor.choose', { name })}
        title={t('monitor.choose', { name })}
        checked={chosen}
        onChange={() => onChoose(part.key)}
        className="absolute end-2 bottom-8 size-4.5 accent-dusk"
      />
    </li>
  )
}
