import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { CompareLessons } from './CompareLessons'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import type { Item, QuestionKept, Questions as QuestionsKept } from '../wire/types.gen'

/** How the questions of a lesson did: each one, all together, and students by questions. */
export function Questions({ session }: { session: string }) {
  const { t, i18n } = useTranslation()
  const { data, error } = useQuery({
    queryKey: ['questions', session],
    queryFn: () => call<QuestionsKept>('GET', `/sessions/${session}/questions`),
  })
  if (error) return <Refusal code={codeOf(error)} />
  if (!data || data.questions.length === 0 || data.students.length === 0) return null
  const number = new Intl.NumberFormat(i18n.language, { maximumFractionDigits: 2 })
  const say = (x: number) => number.format(x)
  const { set } = data
  return (
    <section aria-labelledby="analysis" className="flex flex-col gap-4">
      <header>
        <h2 id="analysis" className="text-xl">
          {t('analysis.title')}
        </h2>
        <p className="text-slate">{t('analysis.text')}</p>
      </header>
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a wide table is scrolled by keys */}
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-labelledby="analysis">
        <table className="w-full border-separate border-spacing-y-1.5 text-start">
          <thead className="text-sm text-slate">
            <tr>
              {(['question', 'right', ...(set ? (['discrimination', 'rest'] as const) : []), 'wrong'] as const).map(
                (k) => (
                  <th key={k} scope="col" className="pe-4 text-start font-normal">
                    {t(`analysis.${k}`)}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {data.questions.map((q, i) => (
              <OneQuestion key={q.poll} n={i + 1} question={q} item={set?.items[i]} say={say} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="max-w-3xl">
        {set?.alpha !== undefined && set.alphaSpan
          ? t('analysis.alpha', {
              count: data.all,
              alpha: say(set.alpha),
              low: say(set.alphaSpan.low),
              high: say(set.alphaSpan.high),
              error: set.error === undefined ? '?' : say(set.error),
            })
          : t('analysis.few')}{' '}
        {t('analysis.rough')}
      </p>
      {data.mistakes.length > 0 && (
        <section aria-label={t('analysis.mistakes')}>
          <h3 className="mb-1 font-semibold">{t('analysis.mistakes')}</h3>
          <ul className="flex flex-wrap gap-2">
            {data.mistakes.map((m) => (
              <li key={m.name} className="rounded-lg bg-amber-soft px-2.5 py-1">
                <span dir="auto">{m.name}</span> <b className="tabular-nums">{m.count}</b>
              </li>
            ))}
          </ul>
        </section>
      )}
      {data.objectives.length > 0 && (
        <section aria-label={t('analysis.objectives')}>
          <h3 className="mb-1 font-semibold">{t('analysis.objectives')}</h3>
          <ul>
            {data.objectives.map((o) => (
              <li key={o.id}>
                {t('analysis.objective', { text: o.text, percent: Math.round(o.mean * 100), count: o.questions })}
              </li>
            ))}
          </ul>
        </section>
      )}
      <ByStudent data={data} />
      <p className="flex flex-wrap gap-4">
        {(['XLSX', 'CSV'] as const).map((kind) => (
          <a
            key={kind}
            href={`/api/sessions/${session}/answers.${kind.toLowerCase()}`}
            className="font-semibold text-dusk underline underline-offset-4"
          >
            {t(`analysis.answers${kind}`)}
          </a>
        ))}
      </p>
      <CompareLessons session={session} />
    </section>
  )
}

type Row = { n: number; question: QuestionKept; item?: Item; say: (x: number) => string }

function OneQuestion({ n, question: q, item, say }: Row) {
  const { t } = useTranslation()
  const percent = (x: number) => Math.round(x * 100)
  return (
    <tr className="align-top">
      <th scope="row" className="max-w-md pe-4 text-start font-semibold">
        {n}. <span dir="auto">{q.text}</span>
        {item?.rest !== undefined && item.rest < 0 && (
          <span className="block text-sm font-normal text-amber">{t('analysis.negative')}</span>
        )}
      </th>
      <td className="pe-4 whitespace-nowrap">
        {t('analysis.rightOf', { right: q.right, of: q.answered })}
        <span className="block text-sm text-slate">
          {t('analysis.span', { low: percent(q.span.low), high: percent(q.span.high) })}
        </span>
      </td>
      {item && <td className="pe-4 tabular-nums">{say(item.discrimination)}</td>}
      {item && (
        <td className="pe-4 whitespace-nowrap tabular-nums">
          {item.rest !== undefined && item.restSpan
            ? t('analysis.restSpan', {
                rest: say(item.rest),
                low: say(item.restSpan.low),
                high: say(item.restSpan.high),
              })
            : t('analysis.restNone')}
        </td>
      )}
      <td>
        <ul className="text-sm">
          {q.wrong.map((w) => (
            <li key={w.text} title={t('analysis.thirds', { ...w })}>
              <b className="tabular-nums">{w.count}</b>{' '}
              <span dir="auto" className={w.mistake ? 'text-amber' : ''}>
                {w.text}
              </span>{' '}
              <span className="text-slate">({t('analysis.thirds', { ...w })})</span>
            </li>
          ))}
        </ul>
      </td>
    </tr>
  )
}

/** Students by questions as one picture, which is also a table: full, part, empty, no answer. */
function ByStudent({ data }: { data: QuestionsKept }) {
  const { t } = useTranslation()
  const words = (share: number | null | undefined) =>
    share === null || share === undefined
      ? t('analysis.none')
      : t(share === 1 ? 'poll.verdict_right' : share > 0 ? 'poll.verdict_partly' : 'poll.verdict_wrong')
  return (
    <details>
      <summary className="cursor-pointer font-semibold">{t('analysis.students')}</summary>
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a wide table is scrolled by keys */}
      <div className="mt-2 overflow-x-auto" tabIndex={0} role="group" aria-label={t('analysis.students')}>
        <table className="border-separate border-spacing-1">
          <thead>
            <tr>
              <th scope="col" className="text-start text-sm font-normal text-slate">
                {t('analysis.who')}
              </th>
              {data.questions.map((q, i) => (
                <th key={q.poll} scope="col" title={q.text} className="min-w-8 text-sm">
                  {i + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.students.map((s) => (
              <tr key={s.id}>
                <th scope="row" className="max-w-48 truncate pe-3 text-start text-sm font-normal">
                  {s.name}
                </th>
                {s.shares.map((share, i) => (
                  <td key={data.questions[i]!.poll} title={words(share)} className="p-0 text-center">
                    <span
                      className={`block h-6 rounded ${share === null || share === undefined ? 'border border-dashed border-edge' : share === 1 ? 'bg-fern' : 'border border-edge'}`}
                      style={
                        share && share < 1
                          ? { background: `linear-gradient(to top, var(--color-amber) ${share * 100}%, transparent 0)` }
                          : undefined
                      }
                    >
                      <span className="sr-only">{words(share)}</span>
                      {share === 0 && (
                        <span aria-hidden="true" className="text-rose">
                          ×
                        </span>
                      )}
                    </span>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}
