import { Laptop, Smartphone, Tablet, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { useDeskState } from './useDesk'
import { isRemoved } from '../rules/standing'

const devices = [
  { name: 'phone', icon: Smartphone, width: 390, height: 844 },
  { name: 'tablet', icon: Tablet, width: 820, height: 1100 },
  { name: 'laptop', icon: Laptop, width: 1366, height: 768 },
] as const

/** How long after the last change the student's screen is shown anew. */
const RENEW_MS = 900

type Props = { board: string; frame: string; onClose: () => void }

/** The student's screen beside the teacher's, as large as on a phone, a tablet or a laptop. */
export function TryPanel({ board, frame, onClose }: Props) {
  const { t } = useTranslation()
  const [device, setDevice] = useState<(typeof devices)[number]>(devices[0])
  const [lifted, setLifted] = useState(false)
  const [scale, setScale] = useState(0.5)
  const room = useRef<HTMLDivElement>(null)
  const round = useRenewed(frame)
  const covers = useDeskState((s) =>
    Boolean(s.sheets.find((o) => o.sheet === frame)?.marks.some((m) => m.kind === 'cover' && !isRemoved(m))),
  )
  useEffect(() => {
    const at = room.current
    if (!at) return
    const fit = () => setScale(Math.min(1, at.clientWidth / device.width, at.clientHeight / device.height))
    const watch = new ResizeObserver(fit)
    watch.observe(at)
    return () => watch.disconnect()
  }, [device])
  return (
    <aside
      aria-label={t('prepare.tryTitle')}
      data-part="try"
      className={`flex min-h-[80vh] w-full shrink-0 flex-col gap-2 border-line bg-mist p-3 max-lg:border-t lg:min-h-0 lg:border-s ${device.name === 'phone' ? 'lg:w-80' : 'lg:w-[46%]'}`}
    >
      <div className="flex items-center gap-1">
        <h2 className="grow text-base whitespace-nowrap">{t('prepare.tryTitle')}</h2>
        <div role="group" aria-label={t('prepare.device')} className="flex">
          {devices.map((d) => (
            <Button
              key={d.name}
              look={d === device ? 'main' : 'quiet'}
              aria-pressed={d === device}
              aria-label={t(`prepare.${d.name}`)}
              title={t(`prepare.${d.name}`)}
              onClick={() => setDevice(d)}
            >
              <d.icon size={17} aria-hidden="true" />
            </Button>
          ))}
        </div>
        <Button look="quiet" aria-label={t('prepare.endTry')} onClick={onClose}>
          <X size={17} aria-hidden="true" />
        </Button>
      </div>
      {covers && (
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-4 accent-dusk"
            checked={lifted}
            onChange={(e) => setLifted(e.target.checked)}
          />
          {t('prepare.tryLifted')}
        </label>
      )}
      <div ref={room} className="relative min-h-0 grow overflow-hidden">
        <iframe
          key={`${frame} ${round} ${lifted}`}
          title={t('prepare.tryTitle')}
          src={`/try/${board}/${frame}?lifted=${lifted}`}
          className="absolute top-0 left-1/2 origin-top rounded-2xl border-4 border-night bg-paper"
          style={{ width: device.width, height: device.height, transform: `translateX(-50%) scale(${scale})` }}
        />
      </div>
      <p className="text-sm text-slate">{t('prepare.tryText')}</p>
    </aside>
  )
}

/** Counts up when the frame has changed and is saved. */
function useRenewed(frame: string): number {
  const now = useDeskState((s) => s.frames.find((f) => f.id === frame))
  const marks = useDeskState((s) => s.sheets.find((o) => o.sheet === frame)?.marks)
  const saved = useDeskState((s) => s.unsaved === 0)
  const [round, setRound] = useState(0)
  const first = useRef(true)
  useEffect(() => {
    if (first.current || !saved) {
      first.current = false
      return
    }
    const timer = setTimeout(() => setRound((n) => n + 1), RENEW_MS)
    return () => clearTimeout(timer)
  }, [now, marks, saved])
  return round
}
