import { useSortable } from '@dnd-kit/sortable'
import { useTranslation } from 'react-i18next'
import { arrangementSign } from '../kit/arrangement'
import type { Frame } from '../wire/types.gen'

type Props = {
  frame: Frame
  n: number
  last: boolean
  on: boolean
  picked: boolean
}

/** A frame on the trail of the board that is prepared. */
export function Station({ frame, n, last, on, picked }: Props) {
  const { t } = useTranslation()
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: frame.id })
  const title = frame.title || frame.prompt || t('prepare.untitled')
  const Sign = arrangementSign[frame.arrangement]
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      role="option"
      aria-selected={on || picked}
      aria-label={t('prepare.station', { n, title, arrangement: t(`sharing.${frame.arrangement}_short`) })}
      tabIndex={on ? 0 : -1}
      data-frame={frame.id}
      className={`relative flex min-w-32 max-w-56 grow basis-0 cursor-pointer touch-manipulation flex-col items-center rounded-lg px-1 pb-1 select-none ${picked ? 'bg-dusk-soft' : 'hover:bg-mist'} ${isDragging ? 'z-10 opacity-80' : ''}`}
      style={transform ? { translate: `${transform.x}px 0`, transition } : undefined}
    >
      {!last && <span aria-hidden="true" className="absolute start-1/2 top-[19px] h-0.5 w-full bg-edge" />}
      <span
        aria-hidden="true"
        className={`relative grid size-9 place-items-center rounded-full border-4 font-bold ${on ? 'border-ridge bg-dusk text-paper' : 'border-line bg-paper'}`}
      >
        {n}
      </span>
      <span className={`mt-1 flex max-w-full items-center gap-1.5 text-sm ${on ? 'font-bold' : 'text-slate'}`}>
        <Sign size={14} className="shrink-0" aria-hidden="true" />
        <span className="truncate">{title}</span>
      </span>
    </div>
  )
}
