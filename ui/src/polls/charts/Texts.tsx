import { useTranslation } from 'react-i18next'
import type { TextsChart } from '../../wire/types.gen'
import { VerdictSign } from './VerdictSign'

/** What was written, with how often. */
export function Texts({ chart, answered }: { chart: TextsChart; answered: number }) {
  const { t } = useTranslation()
  // A class sees what was written only when no more can come unread.
  if (chart.texts.length === 0 && answered > 0) return <p className="text-slate">{t('poll.textsLater')}</p>
  return (
    <ul className="flex flex-wrap gap-[0.45em]">
      {chart.texts.map((one) => (
        <li
          key={one.text}
          className="flex max-w-full items-center gap-[0.5em] rounded-[0.5em] border-2 border-edge bg-paper px-[0.6em] py-[0.3em]"
        >
          <VerdictSign verdict={one.verdict} />
          <span dir="auto" className="min-w-0 break-words">
            {one.text}
            {one.mistake && <span className="block text-[0.8em] text-amber">{one.mistake}</span>}
          </span>
          {one.count > 1 && (
            <span className="text-[0.85em] font-semibold text-slate tabular-nums">
              {t('poll.times', { count: one.count })}
            </span>
          )}
        </li>
      ))}
      {chart.more ? <li className="self-center text-slate">{t('poll.moreTexts', { count: chart.more })}</li> : null}
    </ul>
  )
}
