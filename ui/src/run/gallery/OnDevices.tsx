import { TabletSmartphone } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Switch } from '../../kit/fields/Switch'
import type { SetWalk, Walk } from '../../wire/types.gen'

/** For how many minutes students stay at each stop, when they walk by themselves; 0 for as long as they like. */
const minutes = [0, 1, 2, 3, 5]

type Props = { walk?: Walk; onGive: (change: Partial<SetWalk>) => void }

/** Whether the walk is on the students' devices too, who leads there, and whether they may say something. */
export function OnDevices({ walk, onGive }: Props) {
  const { t } = useTranslation()
  const way = !walk ? 'front' : walk.own ? 'own' : 'led'
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button aria-pressed={walk !== undefined}>
          <TabletSmartphone size={16} aria-hidden="true" />
          {t(`gallery.way_${way}`)}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          collisionPadding={8}
          aria-label={t('gallery.devices')}
          className="z-30 flex w-80 flex-col gap-4 rounded-xl border border-line bg-paper p-4 shadow-lg"
        >
          <fieldset className="flex flex-col gap-1.5">
            <legend className="mb-1 font-semibold">{t('gallery.devices')}</legend>
            {(['front', 'led', 'own'] as const).map((w) => (
              <label key={w} className="flex cursor-pointer items-start gap-2.5 rounded-lg px-1 py-1 hover:bg-mist">
                <input
                  type="radio"
                  name="way"
                  className="mt-1.5"
                  checked={way === w}
                  onChange={() => {
                    if (w === 'front') onGive({ stops: [] })
                    else onGive({ own: w === 'own', each: w === 'own' ? 120 : 0 })
                  }}
                />
                <span>
                  {t(`gallery.way_${w}`)}
                  <span className="block text-sm text-slate">{t(`gallery.wayText_${w}`)}</span>
                </span>
              </label>
            ))}
          </fieldset>
          {walk?.own && (
            <label className="flex items-center justify-between gap-3">
              {t('gallery.each')}
              <select
                value={(walk.each ?? 0) / 60}
                onChange={(e) => onGive({ each: Number(e.target.value) * 60 })}
                className="rounded-lg border border-edge bg-paper px-2 py-1.5"
              >
                {minutes.map((m) => (
                  <option key={m} value={m}>
                    {m === 0 ? t('gallery.noSign') : t('lock.minutes', { count: m })}
                  </option>
                ))}
              </select>
            </label>
          )}
          {walk && (
            <Switch
              label={t('gallery.replies')}
              help={t('gallery.repliesText')}
              on={walk.replies ?? false}
              onSwitch={(replies) => onGive({ replies })}
            />
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
