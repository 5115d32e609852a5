import { ChevronLeft, ChevronRight, type LucideIcon } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { Stage } from '../wire/types.gen'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'

type Props = {
  stage: Stage
  /** Whether there is room for the name of the frame that is on. */
  titled: boolean
}

/** At own pace, the frames that are open to the student as stations to go to. */
export function Way({ stage, titled }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const worked = useLessonState((s) => s.worked)
  const offline = useLessonState((s) => s.network !== 'online')
  const here = useRef<HTMLButtonElement>(null)
  const on = stage.frame.id
  useEffect(() => {
    void here.current?.scrollIntoView({ block: 'nearest', inline: 'center' })
  }, [on])
  const stations = stage.trail ?? []
  const at = stations.findIndex((s) => s.frame === on)
  const go = (to: number) => !offline && stations[to] && void lesson.move(stations[to].frame)
  return (
    <nav
      aria-label={t('student.trail')}
      className={`flex items-center gap-1 ${titled ? 'min-w-0 grow justify-center' : 'flex-wrap border-b border-line bg-snow px-1.5 py-1'}`}
    >
      <Step
        name={t('student.backFrame')}
        icon={ChevronLeft}
        off={offline || at <= 0}
        hint={offline ? t('student.moveOffline') : t('student.backFrame')}
        onGo={() => go(at - 1)}
      />
      <ol className={`flex min-w-0 overflow-x-auto px-1 py-0.5 ${titled ? '' : 'mx-auto max-w-[calc(100%-6.5rem)]'}`}>
        {stations.map((station, i) => {
          const done = worked.has(station.frame)
          return (
            <li key={station.frame} className="relative shrink-0">
              {i > 0 && <span aria-hidden="true" className="absolute inset-y-0 -start-2 my-auto h-0.5 w-4 bg-edge" />}
              <button
                ref={i === at ? here : undefined}
                type="button"
                onClick={() => go(i)}
                aria-current={i === at ? 'step' : undefined}
                aria-disabled={offline || undefined}
                aria-label={[t('student.station', { n: i + 1, title: station.title }), done && t('student.worked')]
                  .filter(Boolean)
                  .join(', ')}
                title={offline ? t('student.moveOffline') : station.title}
                className="relative grid h-11 min-w-11 place-items-center rounded-full"
              >
                <span
                  className={`flex h-9 min-w-9 items-center justify-center gap-1.5 rounded-full border-[3px] px-1 font-bold ${i === at ? 'border-ridge bg-dusk text-paper' : done ? 'border-fern bg-paper' : 'border-line bg-paper'}`}
                >
                  {i + 1}
                  {titled && i === at && <span className="max-w-56 truncate pe-1.5 text-sm">{station.title}</span>}
                </span>
              </button>
            </li>
          )
        })}
      </ol>
      <Step
        name={t('student.nextFrame')}
        icon={ChevronRight}
        off={offline || at === stations.length - 1}
        hint={offline ? t('student.moveOffline') : t('student.nextFrame')}
        onGo={() => go(at + 1)}
      />
      {offline && !titled && <p className="w-full px-2 text-center text-sm text-slate">{t('student.moveOffline')}</p>}
    </nav>
  )
}

type StepProps = { name: string; hint: string; icon: LucideIcon; off: boolean; onGo: () => void }

function Step({ name, hint, icon: Icon, off, onGo }: StepProps) {
  return (
    <button
      type="button"
      onClick={onGo}
      aria-disabled={off || undefined}
      aria-label={name}
      title={hint}
      className="grid size-11 shrink-0 place-items-center rounded-xl text-dusk hover:bg-mist aria-disabled:text-edge"
    >
      <Icon size={26} className="rtl:-scale-x-100" aria-hidden="true" />
    </button>
  )
}
