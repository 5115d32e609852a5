import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Dialog } from '../kit/windows/Dialog'
import type { Frame } from '../wire/types.gen'
import { useDeskState } from './useDesk'
import { isRemoved } from '../rules/standing'

type Props = { frames: Frame[]; at: string; onOpen: (frame: string) => void; onClose: () => void }

/** All frames large, to see the lesson as a whole. */
export function Overview({ frames, at, onOpen, onClose }: Props) {
  const { t } = useTranslation()
  const sheets = useDeskState((s) => s.sheets)
  return (
    <Dialog open wide onOpenChange={onClose} title={t('prepare.overview')}>
      <ol className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        {frames.map((frame, i) => {
          const title = frame.title || frame.prompt || t('prepare.untitled')
          const marks = (sheets.find((s) => s.sheet === frame.id)?.marks ?? []).filter((m) => !isRemoved(m))
          return (
            <li key={frame.id}>
              <button
                type="button"
                aria-current={frame.id === at ? 'step' : undefined}
                onClick={() => onOpen(frame.id)}
                className={`w-full overflow-hidden rounded-xl border-2 text-start hover:border-dusk ${frame.id === at ? 'border-dusk' : 'border-line'}`}
              >
                <Thumbnail frame={frame} marks={marks} width={420} label={title} />
                <span className="flex items-center gap-2 border-t border-line px-3 py-2">
                  <b className="grid size-7 shrink-0 place-items-center rounded-full bg-mist">{i + 1}</b>
                  <span className="min-w-0 grow truncate font-semibold">{title}</span>
                  <span className="shrink-0 text-sm text-slate">{t(`sharing.${frame.arrangement}_short`)}</span>
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </Dialog>
  )
}
