import { Minus, Plus, Square, Timer as TimerIcon } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { TimerFace } from '../../shown/TimerFace'
import { useChime } from '../../shown/useChime'
import { useLeft } from '../../wire/hooks/useClock'
import type { Staff } from '../../wire/lesson'
import type { SetTimer } from '../../wire/types.gen'
import { useMe } from '../../wire/hooks/useMe'
import { useStaffLesson } from '../../wire/hooks/useStaff'

const MINUTES = [1, 2, 3, 5, 10, 15]
const STANDARD = 300
const remembered = 'alpenglow timer'

type How = { sound: boolean; light: boolean; look: boolean }

/** As it was the last time; the sound is the teacher's setting unless it was changed here. */
function lastHow(sound: boolean): How {
  try {
    return {
      sound,
      light: true,
      look: false,
      ...(JSON.parse(localStorage.getItem(remembered) ?? '{}') as object),
    }
  } catch {
    return { sound, light: true, look: false }
  }
}

/** Starts the timer for every screen, lengthens, shortens and stops it. */
export function TimerButton({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const { timer } = staff.state
  const left = useLeft(timer)
  useChime(timer, left)
  const standard = staff.board.frames.find((f) => f.id === staff.state.frame)?.seconds || STANDARD
  const [open, setOpen] = useState(false)
  const [own, setOwn] = useState('')
  const sound = useMe().data?.teacher?.settings.sound ?? true
  const [chosen, setHow] = useState<How | null>(null)
  const how = chosen ?? lastHow(sound)
  const give = (set: SetTimer) => lesson.give({ kind: 'timer', timer: set })
  async function start(seconds: number) {
    try {
      localStorage.setItem(remembered, JSON.stringify(how))
    } catch {
      // A browser that keeps nothing begins with the usual the next time.
    }
    if (await give({ seconds, ...how })) setOpen(false)
  }
  const minutes = Number(own.replace(',', '.'))
  const small = 'grid h-10 w-8 place-items-center hover:bg-mist'
  if (timer) {
    return (
      <span
        role="group"
        aria-label={t('timer.title')}
        className="inline-flex items-center overflow-hidden rounded-lg border border-edge bg-paper"
      >
        <button
          type="button"
          aria-label={t('timer.less')}
          title={t('timer.less')}
          className={small}
          onClick={() => void give({ more: -60 })}
        >
          <Minus size={16} aria-hidden="true" />
        </button>
        {left ? <TimerFace left={left} className="px-1 text-lg" /> : <span className="w-24" />}
        <button
          type="button"
          aria-label={t('timer.more')}
          title={t('timer.more')}
          className={small}
          onClick={() => void give({ more: 60 })}
        >
          <Plus size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          aria-label={t('timer.stop')}
          title={t('timer.stop')}
          data-key="timer"
          className={`${small} border-s border-line text-rose`}
          onClick={() => void give({})}
        >
          <Square size={14} aria-hidden="true" className="fill-current" />
        </button>
      </span>
    )
  }
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        title={t('timer.hint')}
        data-key="timer"
        aria-keyshortcuts="Alt+T"
        className="inline-flex min-h-10 items-center gap-2 rounded-lg border border-edge bg-paper px-3 font-semibold hover:bg-mist"
      >
        <TimerIcon size={18} aria-hidden="true" />
        <span className="max-sm:sr-only">{t('timer.title')}</span>
      </Popover.Trigger>
      <Popover.Content
        align="end"
        sideOffset={6}
        aria-label={t('timer.title')}
        className="z-40 flex w-76 flex-col gap-3 rounded-2xl border border-line bg-paper p-4 shadow-xl"
      >
        <Button look="main" size="large" onClick={() => void start(standard)}>
          {t('timer.start', { time: t('timer.minutes', { count: standard / 60 }) })}
        </Button>
        <div className="grid grid-cols-3 gap-2">
          {MINUTES.map((m) => (
            <Button
              key={m}
              aria-label={t('timer.start', { time: t('timer.minutes', { count: m }) })}
              onClick={() => void start(m * 60)}
            >
              {t('timer.minutes', { count: m })}
            </Button>
          ))}
        </div>
        <form
          className="flex items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            void start(Math.round(minutes * 60))
          }}
        >
          <input
            aria-label={t('timer.own')}
            inputMode="decimal"
            value={own}
            onChange={(e) => setOwn(e.target.value)}
            placeholder={t('timer.own')}
            className="min-h-10 min-w-0 grow rounded-lg border border-edge px-2"
          />
          <Button type="submit" className="min-h-10" disabled={!(minutes >= 0.1 && minutes <= 240)}>
            {t('timer.go')}
          </Button>
        </form>
        {(['sound', 'light', 'look'] as const).map((key) => (
          <label key={key} className="flex items-center gap-2.5">
            <input
              type="checkbox"
              checked={how[key]}
              onChange={(e) => setHow({ ...how, [key]: e.target.checked })}
              className="size-4 accent-dusk"
            />
            {t(`timer.${key}`)}
          </label>
        ))}
      </Popover.Content>
    </Popover.Root>
  )
}
