import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Staff } from '../../wire/lesson'
import type { Advised, Element, Frame } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { BandsMenu } from './BandsMenu'

type Props = { mark: Element; frame: Frame; advised: Advised; staff: Staff }

/** What one might do next, with its reason and how sure that is. Nothing happens by itself. */
export function Advice({ mark, frame, advised, staff }: Props) {
  const { t, i18n } = useTranslation()
  const lesson = useStaffLesson()
  const { is, or = [], right, of, span } = advised
  const phase = staff.state.polls[mark.id]?.phase
  const percent = (share: number) => Math.round(share * 100)
  const others = new Intl.ListFormat(i18n.language, { type: 'disjunction' }).format(or.map((a) => t(`asking.is_${a}`)))
  const parallel = frame.prepared.find(
    (m): m is Element & { kind: 'poll' } => m.kind === 'poll' && m.poll.insteadOf === mark.id,
  )
  const again = async (poll = mark.id) => {
    if (phase === 'open') await lesson.give({ kind: 'poll', poll: { poll: mark.id, phase: 'closed' } })
    await lesson.give({ kind: 'ask', ask: { poll } })
  }
  return (
    <section
      aria-label={t('asking.next')}
      className="rounded-xl border border-line border-s-4 border-s-glow bg-paper p-4 shadow-sm"
    >
      <h3 className="font-display text-xl leading-tight font-semibold">{t(`asking.do_${is}`)}</h3>
      <p className="mt-2">{t(`asking.why_${is}`, { right, of })}</p>
      <p className="mt-2 text-sm text-slate">
        {t('asking.span', { low: percent(span.low), high: percent(span.high) })}{' '}
        {or.length > 0 ? t('asking.unsure', { of, others }) : t('asking.firm')}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          look={is === 'discuss' ? 'main' : 'plain'}
          onClick={() => void lesson.give({ kind: 'talk', talk: { poll: mark.id } })}
        >
          {t('asking.pairs')}
        </Button>
        <Button onClick={() => void again()}>{t('poll.askAgain')}</Button>
        {parallel && !staff.state.polls[parallel.id] && (
          <Button title={parallel.poll.text} onClick={() => void again(parallel.id)}>
            {t('asking.askParallel')}
          </Button>
        )}
        <BandsMenu bands={advised.bands} />
      </div>
    </section>
  )
}
