import { DoorClosed, DoorOpen, Hand } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Choice } from '../../kit/fields/Choice'
import type { Door, Entry, State } from '../../wire/types.gen'
import { useWish } from '../useWish'

const entries: Entry[] = ['', 'known', 'list']

/** Who comes in: everybody, those who are let in, nobody new; and by which names. */
export function DoorChoices({ state, listed }: { state: State; listed: boolean }) {
  const { t } = useTranslation()
  const is = JSON.stringify({ closed: state.closed ?? false, shut: state.shut ?? false, entry: state.entry ?? '' })
  const [wish, wishFor] = useWish(is, (to: string) => ({ kind: 'door', door: JSON.parse(to) as Door }))
  const door = JSON.parse(wish) as Door
  const set = (change: Partial<Door>) => wishFor(JSON.stringify({ ...door, entry: door.entry ?? '', ...change }))
  const at = door.shut ? 'shut' : door.closed ? 'asks' : 'open'
  return (
    <div className="mt-3 grid items-end gap-4 border-t border-line pt-3 sm:grid-cols-2">
      <div>
        <Choice
          name="door"
          label={t('door.title')}
          value={at}
          onPick={(to) => set({ closed: to !== 'open', shut: to === 'shut' })}
          all={[
            { value: 'open', icon: DoorOpen, label: t('door.isOpen') },
            { value: 'asks', icon: Hand, label: t('door.asks') },
            { value: 'shut', icon: DoorClosed, label: t('door.isShut') },
          ]}
        />
        <p className="mt-1 text-sm text-slate">{t(`door.text_${at}`)}</p>
      </div>
      <div>
        <label className="flex flex-col gap-1 text-sm font-semibold">
          {t('door.names')}
          <select
            value={door.entry ?? ''}
            onChange={(e) => set({ entry: e.target.value as Entry })}
            className="rounded-lg border border-edge bg-paper px-3 py-2 text-base font-normal"
          >
            {entries
              .filter((entry) => listed || entry !== 'list')
              .map((entry) => (
                <option key={entry} value={entry}>
                  {t(`door.names_${entry || 'any'}`)}
                </option>
              ))}
          </select>
        </label>
        <p className="mt-1 text-sm text-slate">{t(`door.namesText_${door.entry || 'any'}`)}</p>
      </div>
    </div>
  )
}
