import { ChevronDown, Footprints, Megaphone } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import type { Staff } from '../../wire/lesson'
import type { Pace, SetPace } from '../../wire/types.gen'
import { useWish } from '../useWish'

/** Who decides which frame a student is on: in words, and a place to change it at any time. */
export function PaceMenu({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const id = useId()
  const { state } = staff
  const [{ pace, through }, set] = useWish<SetPace>(state, (to) => ({ kind: 'pace', pace: to }))
  const Sign = pace === 'own' ? Footprints : Megaphone
  const frames = staff.board.frames
  return (
    <Popover.Root>
      <Popover.Trigger
        className="flex w-28 shrink-0 flex-col items-center gap-1 self-start rounded-lg border border-line bg-paper px-2 py-1.5 text-sm font-semibold hover:border-dusk"
        aria-label={t('pace.change', { now: t(`pace.${pace}`) })}
      >
        <Sign size={19} className="text-dusk" aria-hidden="true" />
        <span className="inline-flex items-center gap-1">
          {t(`pace.${pace}`)}
          <ChevronDown size={14} aria-hidden="true" />
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label={t('start.pace')}
          className="z-30 w-80 rounded-xl border border-line bg-paper p-4 text-night shadow-lg"
        >
          <fieldset className="flex flex-col gap-1">
            <legend className="mb-1 font-semibold">{t('start.pace')}</legend>
            {(['led', 'own'] as Pace[]).map((kind) => (
              <label key={kind} className="flex items-start gap-2 rounded-lg py-1">
                <input
                  type="radio"
                  name={`${id}-pace`}
                  className="mt-1 size-4 shrink-0 accent-dusk"
                  checked={pace === kind}
                  onChange={() => set({ pace: kind })}
                />
                <span>
                  {t(`pace.${kind}`)}
                  <span className="block text-sm text-slate">{t(`pace.${kind}Says`)}</span>
                </span>
              </label>
            ))}
          </fieldset>
          {pace === 'own' && (
            <label className="mt-3 block text-sm">
              <span className="mb-1 block font-semibold">{t('pace.through')}</span>
              <select
                className="w-full rounded-lg border border-edge bg-paper px-2 py-1.5"
                value={through ?? ''}
                onChange={(e) => set({ pace: 'own', ...(e.target.value ? { through: e.target.value } : {}) })}
              >
                {frames.slice(0, -1).map((f, i) => (
                  <option key={f.id} value={f.id}>
                    {t('pace.frame', { n: i + 1, title: f.title })}
                  </option>
                ))}
                <option value="">{t('pace.all')}</option>
              </select>
            </label>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
