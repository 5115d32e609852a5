import { useTranslation } from 'react-i18next'
import type { Frame } from '../../wire/types.gen'
import { PaperSettings } from './PaperSettings'
import { RowSettings } from './RowSettings'
import { Laying } from '../../kit/Laying'
import { Sharing } from '../../kit/Sharing'
import { Typed } from '../../kit/fields/Typed'
import { useDesk, useDeskState } from '../useDesk'

const minutes = [0, 1, 2, 3, 5, 8, 10, 15, 20, 30, 45]

/** What a frame is called, asks, lies on, and how it is used in class. */
export function Settings({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const objectives = useDeskState((s) => s.outline?.objectives ?? [])
  const set = (to: Parameters<typeof desk.set>[1]) => desk.set(frame.id, to)
  const chosen = frame.objectives ?? []
  return (
    <aside
      aria-label={t('prepare.settings')}
      data-part="settings"
      className="flex w-full shrink-0 flex-col gap-4 overflow-auto border-line bg-snow p-4 max-lg:border-t lg:w-80 lg:border-s"
    >
      <Typed label={t('prepare.title')} value={frame.title} limit={120} onChange={(title) => set({ title })} />
      <Typed
        label={t('prepare.prompt')}
        value={frame.prompt}
        limit={600}
        rows={2}
        onChange={(prompt) => set({ prompt })}
      />
      <RowSettings frame={frame} onSet={(as) => set({ set: { as } })} />
      {/* Questions in a row have the screen to themselves. */}
      {!frame.set && (
        <>
          <Sharing frame={frame} onSet={set} />
          <Laying layout={frame.layout} onSet={(layout) => set({ layout })} />
          <PaperSettings paper={frame.paper} onSet={(paper) => set({ paper })} />
        </>
      )}
      <label className="flex items-center justify-between gap-3">
        <span className="text-sm font-semibold">{t('prepare.timer')}</span>
        <select
          className="rounded-lg border border-edge bg-paper px-2 py-1.5"
          value={frame.seconds ?? 0}
          onChange={(e) => set({ seconds: Number(e.target.value) })}
        >
          {minutes.map((n) => (
            <option key={n} value={60 * n}>
              {n === 0 ? t('prepare.noTimer') : t('prepare.minutes', { count: n })}
            </option>
          ))}
        </select>
      </label>
      {objectives.length > 0 && (
        <fieldset>
          <legend className="mb-1 text-sm font-semibold">{t('prepare.serves')}</legend>
          {objectives.map((o) => (
            <label key={o.id} className="flex items-start gap-2 py-0.5">
              <input
                type="checkbox"
                className="mt-1 size-4 accent-dusk"
                checked={chosen.includes(o.id)}
                onChange={(e) =>
                  set({ objectives: e.target.checked ? [...chosen, o.id] : chosen.filter((id) => id !== o.id) })
                }
              />
              {o.text}
            </label>
          ))}
        </fieldset>
      )}
      <Typed
        label={t('prepare.notes')}
        help={t('prepare.notesHelp')}
        value={frame.notes ?? ''}
        limit={4000}
        rows={4}
        onChange={(notes) => set({ notes })}
      />
    </aside>
  )
}
