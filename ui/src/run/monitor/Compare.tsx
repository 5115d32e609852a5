import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../../frame/paint/Thumbnail'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import type { Element, Frame } from '../../wire/types.gen'
import type { Marks, Part } from './parts'

/** How many are put side by side at most. */
export const MOST = 6

const nothing: readonly Element[] = []

type Props = { parts: Part[]; frame: Frame; marks: Marks; onClose: () => void; onFront?: () => void }

/** Two to six parts side by side, live. */
export function Compare({ parts, frame, marks, onClose, onFront }: Props) {
  const { t } = useTranslation()
  return (
    <Dialog wide open onOpenChange={onClose} title={t('monitor.compare', { count: parts.length })}>
      <ul className={`grid gap-3 ${parts.length > 4 ? 'sm:grid-cols-3' : 'sm:grid-cols-2'}`}>
        {parts.map((part) => (
          <li key={part.key} className="overflow-hidden rounded-xl border border-line">
            <Thumbnail
              frame={frame}
              marks={marks.get(part.key) ?? nothing}
              width={parts.length > 4 ? 360 : 540}
              label={t('run.studentFrame', { name: part.name })}
            />
            <p className="border-t border-line px-3 py-1.5 font-semibold">{part.name}</p>
          </li>
        ))}
      </ul>
      {onFront && (
        <div className="mt-3">
          <Button onClick={onFront}>{t('monitor.front')}</Button>
        </div>
      )}
    </Dialog>
  )
}
