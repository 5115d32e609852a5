import { RefreshCw, Search } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Frame, StudentState } from '../../wire/types.gen'
import { PAGE, type Filter, type Order } from './order'

/** How wide a part is at least, in pixels. */
export const sizes = { small: 168, medium: 240, large: 340 } as const
export type Size = keyof typeof sizes

const states: StudentState[] = ['notBegun', 'atWork', 'quiet', 'done', 'help', 'away', 'gone']

const orders = (groups: boolean, seats: boolean): Order[] => [
  'name',
  'next',
  ...(groups ? (['group'] as const) : []),
  ...(seats ? (['seat'] as const) : []),
]

type Props = {
  grouped: boolean
  groups: number
  /** Whether it is noted who sits where. */
  seated: boolean
  /** The lesson's frames, and of which one the work is shown. */
  frames: Frame[]
  frame: string
  onFrame: (frame: string) => void
  order: Order
  onOrder: (order: Order) => void
  filter: Filter
  onFilter: (filter: Filter) => void
  size: Size
  onSize: (size: Size) => void
  shown: number
  all: number
  page: number
  onPage: (page: number) => void
}

/** In which order everyone's work stands, whose of it is shown, and how large. */
export function Tools(props: Props) {
  const { t } = useTranslation()
  const {
    grouped,
    groups,
    seated,
    frames,
    frame,
    onFrame,
    order,
    onOrder,
    filter,
    onFilter,
    size,
    onSize,
    shown,
    all,
    page,
    onPage,
  } = props
  const select = 'rounded-lg border border-edge bg-paper px-2 py-1.5'
  const pages = Math.max(1, Math.ceil(shown / PAGE))
  return (
    <div role="toolbar" aria-label={t('monitor.tools')} className="flex flex-wrap items-center gap-2 px-3 pt-2 text-sm">
      {!grouped && (
        <span className="flex items-center">
          <select
            aria-label={t('monitor.order')}
            className={select}
            value={order}
            onChange={(e) => onOrder(e.target.value as Order)}
          >
            {orders(groups > 0, seated).map((o) => (
              <option key={o} value={o}>
                {t(`monitor.by_${o}`)}
              </option>
            ))}
          </select>
          {order === 'next' && (
            <Button
              look="quiet"
              aria-label={t('monitor.again')}
              title={t('monitor.again')}
              onClick={() => onOrder('next')}
            >
              <RefreshCw size={16} aria-hidden="true" />
            </Button>
          )}
        </span>
      )}
      {frames.length > 1 && (
        <select
          aria-label={t('monitor.frame')}
          className={`${select} max-w-44`}
          value={frame}
          onChange={(e) => onFrame(e.target.value)}
        >
          {frames.map((f, i) => (
            <option key={f.id} value={f.id}>
              {`${i + 1} ${f.title}`}
            </option>
          ))}
        </select>
      )}
      <select
        aria-label={t('monitor.state')}
        className={select}
        value={filter.state}
        onChange={(e) => onFilter({ ...filter, state: e.target.value as StudentState | '' })}
      >
        <option value="">{t('monitor.everyState')}</option>
        {states.map((s) => (
          <option key={s} value={s}>
            {t(`states.${s}`)}
          </option>
        ))}
      </select>
      {!grouped && groups > 0 && (
        <select
          aria-label={t('monitor.group')}
          className={select}
          value={filter.group}
          onChange={(e) => onFilter({ ...filter, group: Number(e.target.value) })}
        >
          <option value={0}>{t('monitor.everyGroup')}</option>
          {Array.from({ length: groups }, (_, i) => (
            <option key={i} value={i + 1}>
              {t('groups.name', { n: i + 1 })}
            </option>
          ))}
        </select>
      )}
      <span className="relative">
        <Search size={15} aria-hidden="true" className="absolute start-2 top-1/2 -translate-y-1/2 text-slate" />
        <input
          type="search"
          aria-label={t('monitor.word')}
          placeholder={t('monitor.word')}
          className={`${select} w-40 ps-7`}
          value={filter.word}
          onChange={(e) => onFilter({ ...filter, word: e.target.value })}
        />
      </span>
      <select
        aria-label={t('monitor.size')}
        className={select}
        value={size}
        onChange={(e) => onSize(e.target.value as Size)}
      >
        {(Object.keys(sizes) as Size[]).map((s) => (
          <option key={s} value={s}>
            {t(`monitor.size_${s}`)}
          </option>
        ))}
      </select>
      <span role="status" className="text-slate">
        {shown < all && t('monitor.shown', { shown, all })}
      </span>
      {pages > 1 && (
        <span className="ms-auto flex items-center gap-1">
          <Button disabled={page === 0} onClick={() => onPage(page - 1)}>
            {t('monitor.before')}
          </Button>
          <span className="px-1 tabular-nums">{t('monitor.page', { n: page + 1, of: pages })}</span>
          <Button disabled={page >= pages - 1} onClick={() => onPage(page + 1)}>
            {t('monitor.after')}
          </Button>
        </span>
      )}
    </div>
  )
}
