import { isAnswer } from '../rules/answers'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import type { Element, Frame } from '../wire/types.gen'
import { textOf } from './paint/geometry'
import { useHand } from './hand/useHand'
import { nameKey } from './marks/useMark'
import { replied } from './useCounts'
import '../words/windows'
import { isBeside, type Reply } from '../rules/pieces'
import { isHidden, isRemoved } from '../rules/standing'

type Props = { frame: Frame; marks: readonly Element[]; replies: readonly Reply[]; onClose: () => void }

/** The same frame as text: everything on it, in reading order, by agreement or by author. */
export default function ListView({ frame, marks, replies, onClose }: Props) {
  const { t } = useTranslation()
  const hand = useHand()
  const [order, setOrder] = useState<'place' | 'agreed' | 'author'>('place')
  const listed = useMemo(() => {
    // A piece that nobody has moved stands with what was prepared.
    const all = marks.filter((m) => !isAnswer(m) && !isRemoved(m) && (m.author || !m.layer))
    const byPlace = (a: Element, b: Element) => Math.round((a.y - b.y) / 80) || a.x - b.x
    const agreed = (m: Element) => m.agreed?.length ?? 0
    if (order === 'agreed') return all.sort((a, b) => agreed(b) - agreed(a) || byPlace(a, b))
    if (order === 'author')
      return all.sort((a, b) => hand.nameOf(a.author).localeCompare(hand.nameOf(b.author)) || byPlace(a, b))
    return all.sort(byPlace)
  }, [marks, order, hand])
  function goTo(mark: Element) {
    onClose()
    hand.set({ tool: 'select' })
    hand.select([mark.id])
    hand.show(mark)
    setTimeout(
      () => document.querySelector<HTMLElement>(`[data-mark="${mark.id}"]`)?.focus({ preventScroll: true }),
      50,
    )
  }
  const moved = new Set(listed.map((m) => m.id))
  const prepared = frame.prepared.filter(
    (m) => !moved.has(m.id) && (textOf(m) || m.kind === 'table' || m.kind === 'poll'),
  )
  return (
    <Dialog open wide onOpenChange={onClose} title={t('list.title', { title: frame.title })} text={frame.prompt}>
      {prepared.length > 0 && (
        <section aria-label={t('list.prepared')} className="mb-4">
          <h3 className="mb-1 font-semibold">{t('list.prepared')}</h3>
          <ul className="list-disc ps-6">
            {prepared.map((m) => (
              <li key={m.id}>
                {m.kind === 'table'
                  ? m.table.rows.map((row) => row.join(', ')).join('; ')
                  : m.kind === 'poll'
                    ? m.poll.text
                    : textOf(m)}
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h3 className="grow font-semibold">{t('list.work', { count: listed.length })}</h3>
        <label className="flex items-center gap-2 text-sm">
          {t('list.order')}
          <select
            value={order}
            onChange={(e) => setOrder(e.target.value as typeof order)}
            className="rounded-lg border border-edge bg-paper px-2 py-1.5"
          >
            {(['place', 'agreed', 'author'] as const).map((by) => (
              <option key={by} value={by}>
                {t(`list.by_${by}`)}
              </option>
            ))}
          </select>
        </label>
      </div>
      {listed.length === 0 ? (
        <p className="text-slate">{t('list.empty')}</p>
      ) : (
        <ol className="divide-y divide-line">
          {listed.map((m) => (
            <li key={m.id} className="flex items-center gap-3 py-2">
              <div className="min-w-0 grow">
                <p className="text-sm text-slate">
                  {hand.nameOf(m.author)} · {t(`marks.${nameKey(m)}`)}
                  {m.agreed?.length ? ` · ${t('marks.agreed', { count: m.agreed.length })}` : ''}
                  {isHidden(m) ? ` · ${t('frame.hiddenMark')}` : ''}
                  {isBeside(m) ? ` · ${t('margin.here')}` : ''}
                </p>
                <p className="break-words whitespace-pre-wrap">
                  {textOf(m) ||
                    (m.kind === 'stamp' ? t(`stamps.${m.stamp.sign}`) : m.kind === 'link' ? m.link.url : '')}
                </p>
                <ul className="ms-4 border-s-2 border-line ps-3 empty:hidden" aria-label={t('replies.title')}>
                  {replied(replies, m.id).map((r) => (
                    <li key={r.id}>
                      <span className="text-sm text-slate">
                        {hand.nameOf(r.author)}
                        {isHidden(r) ? ` · ${t('frame.hiddenMark')}` : ''}
                      </span>{' '}
                      <span dir="auto">{r.reply.text}</span>
                    </li>
                  ))}
                </ul>
              </div>
              {!isBeside(m) && (
                <Button
                  onClick={() => goTo(m)}
                  aria-label={t('list.goToThis', { name: hand.nameOf(m.author), what: t(`marks.${nameKey(m)}`) })}
                >
                  {t('list.goTo')}
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </Dialog>
  )
}
