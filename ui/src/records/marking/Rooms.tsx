import { useTranslation } from 'react-i18next'
import { WHOLE, type useTurn } from './useTurn'

type Props = Pick<ReturnType<typeof useTurn>, 'rooms' | 'room'> & { onGo: (room: string) => void }

/** The frames to judge, and the whole lesson: how many of the students who were there are judged. */
export function Rooms({ rooms, room, onGo }: Props) {
  const { t } = useTranslation()
  return (
    <nav aria-label={t('marking.frames')} className="flex gap-2 overflow-x-auto p-1">
      {rooms.map((r) => (
        <button
          key={r.id}
          type="button"
          aria-current={r.id === room}
          onClick={() => onGo(r.id)}
          className={`flex max-w-60 shrink-0 items-center gap-2 rounded-xl border px-3 py-1.5 font-semibold ${r.id === room ? 'border-dusk bg-dusk text-paper' : 'border-edge bg-paper hover:bg-mist'}`}
        >
          <span className="truncate">{r.id === WHOLE ? t('marking.whole') : `${r.number}. ${r.title}`}</span>
          <span className="shrink-0 text-sm font-normal tabular-nums">
            {r.done}/{r.of}
          </span>
        </button>
      ))}
    </nav>
  )
}
