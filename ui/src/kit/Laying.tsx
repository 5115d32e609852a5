import { Columns3, Plus, StickyNote, Trash2 } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import type { Layout, Order } from '../wire/types.gen'
import { Choice } from './fields/Choice'
import { Typed } from './fields/Typed'

const MAX_COLUMNS = 6
const orders: Order[] = ['', 'agreed', 'name', 'tint', 'hand']
const ways = [
  { value: 'free', icon: StickyNote },
  { value: 'columns', icon: Columns3 },
] as const

type Props = { layout: Layout; onSet: (to: Layout) => void }

/** How notes lie on a frame: where people put them, or by themselves in columns under headings. */
export function Laying({ layout, onSet }: Props) {
  const { t } = useTranslation()
  const columns = layout.columns ?? []
  const fresh = () => ({ id: uuidv7() })
  const change = (id: string, to: { title?: string; prompt?: string }) =>
    onSet({ ...layout, columns: columns.map((c) => (c.id === id ? { ...c, ...to } : c)) })
  return (
    <div className="flex flex-col gap-3">
      <Choice
        name="laying"
        label={t('laying.label')}
        all={ways.map((w) => ({ ...w, label: t(`laying.${w.value}`) }))}
        value={columns.length > 0 ? 'columns' : 'free'}
        onPick={(way) => {
          if (way === 'free') onSet({})
          else if (columns.length === 0) onSet({ ...layout, columns: [fresh(), fresh(), fresh()] })
        }}
      />
      {columns.length > 0 && (
        <>
          <ol className="flex flex-col gap-2">
            {columns.map((c, i) => (
              <li key={c.id} className="flex items-end gap-1.5 rounded-lg bg-mist p-2">
                <div className="flex min-w-0 grow flex-col gap-1.5">
                  <Typed
                    label={t('laying.heading', { n: i + 1 })}
                    value={c.title ?? ''}
                    limit={60}
                    onChange={(title) => change(c.id, { title })}
                  />
                  <Typed
                    label={t('laying.prompt', { n: i + 1 })}
                    value={c.prompt ?? ''}
                    limit={200}
                    onChange={(prompt) => change(c.id, { prompt })}
                  />
                </div>
                <button
                  type="button"
                  aria-label={t('laying.remove', { n: i + 1 })}
                  title={t('laying.remove', { n: i + 1 })}
                  className="grid size-9 shrink-0 place-items-center rounded-lg text-slate hover:bg-paper hover:text-rose"
                  onClick={() => onSet({ ...layout, columns: columns.filter((o) => o.id !== c.id) })}
                >
                  <Trash2 size={17} aria-hidden="true" />
                </button>
              </li>
            ))}
          </ol>
          <button
            type="button"
            disabled={columns.length >= MAX_COLUMNS}
            className="inline-flex items-center gap-1.5 self-start rounded-lg px-2 py-1.5 text-sm font-semibold text-dusk hover:bg-dusk-soft disabled:text-edge"
            onClick={() => onSet({ ...layout, columns: [...columns, fresh()] })}
          >
            <Plus size={17} aria-hidden="true" />
            {t('laying.add')}
          </button>
          <label className="flex items-center justify-between gap-3">
            <span className="text-sm font-semibold">{t('laying.order')}</span>
            <select
              className="rounded-lg border border-edge bg-paper px-2 py-1.5"
              value={layout.order ?? ''}
              onChange={(e) => onSet({ ...layout, order: e.target.value as Order })}
            >
              {orders.map((o) => (
                <option key={o} value={o}>
                  {t(`laying.by_${o || 'came'}`)}
                </option>
              ))}
            </select>
          </label>
        </>
      )}
      <p className="text-sm text-slate">{t(columns.length > 0 ? 'laying.saysColumns' : 'laying.saysFree')}</p>
    </div>
  )
}
