import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import type { Boards, Compared, QuestionCompared, RightOf } from '../wire/types.gen'

/** The questions of a lesson beside the same ones of another lesson of its board. */
export function CompareLessons({ session }: { session: string }) {
  const { t, i18n } = useTranslation()
  const [other, choose] = useState('')
  const lists = useQuery({ queryKey: ['boards'], queryFn: () => call<Boards>('GET', '/boards') })
  const all = lists.data?.sessions ?? []
  const own = all.find((s) => s.id === session)
  const others = all.filter((s) => s.id !== session && s.endedAt && !s.practice && s.title === own?.title)
  const { data, error } = useQuery({
    queryKey: ['compare', session, other],
    enabled: other !== '',
    queryFn: () => call<Compared>('GET', `/sessions/${session}/compare?with=${other}`),
  })
  if (others.length === 0) return null
  const when = new Intl.DateTimeFormat(i18n.language, { dateStyle: 'medium' })
  return (
    <section aria-labelledby="compare" className="flex flex-col gap-3">
      <h3 id="compare" className="font-semibold">
        {t('compare.title')}
      </h3>
      <label className="flex flex-wrap items-center gap-2">
        {t('compare.with')}
        <select
          value={other}
          onChange={(e) => choose(e.target.value)}
          className="rounded-lg border border-edge bg-paper px-2 py-1.5"
        >
          <option value="">{t('compare.nothing')}</option>
          {others.map((s) => (
            <option key={s.id} value={s.id}>
              {[s.className, when.format(new Date(s.startedAt))].filter(Boolean).join(' · ')}
            </option>
          ))}
        </select>
      </label>
      {error && <Refusal code={codeOf(error)} />}
      {data && data.questions.length === 0 && <p>{t('compare.none')}</p>}
      {data && data.questions.length > 0 && (
        <>
          <ul className="flex flex-col gap-3">
            {data.questions.map((q, i) => (
              <One key={i} question={q} />
            ))}
          </ul>
          <p className="max-w-3xl text-sm text-slate">
            {t('compare.rough')}{' '}
            {data.only + data.onlyOther > 0 && t('compare.only', { count: data.only + data.onlyOther })}
          </p>
        </>
      )}
    </section>
  )
}

/** One question: both shares with their intervals, and the difference in words. */
function One({ question: q }: { question: QuestionCompared }) {
  const { t } = useTranslation()
  const points = Math.round(Math.abs(q.by) * 100)
  const says = !q.difference
    ? t('compare.noAnswers')
    : !q.sure
      ? t('compare.unsure')
      : t(q.by > 0 ? 'compare.moreThere' : 'compare.moreHere', { count: points })
  return (
    <li className="rounded-xl border border-line bg-paper p-3">
      <h4 dir="auto" className="font-semibold">
        {q.text}
      </h4>
      <div className="mt-1.5 grid max-w-2xl gap-1">
        <Share name={t('compare.here')} did={q.here} />
        <Share name={t('compare.there')} did={q.there} />
      </div>
      <p className={`mt-1.5 ${q.sure ? 'font-semibold' : 'text-slate'}`}>{says}</p>
      {q.mistakes.length > 0 && (
        <ul className="mt-1 flex flex-wrap gap-2 text-sm">
          {q.mistakes.map((m) => (
            <li key={m.name} className="rounded-lg bg-amber-soft px-2 py-0.5">
              <span dir="auto">{m.name}</span>{' '}
              <span className="tabular-nums">{t('compare.mistake', { here: m.here, there: m.there })}</span>
            </li>
          ))}
        </ul>
      )}
    </li>
  )
}

/** How many were right, with between what that may lie. */
function Share({ name, did }: { name: string; did: RightOf }) {
  const { t } = useTranslation()
  const percent = (x: number) => `${100 * x}%`
  return (
    <div className="flex items-center gap-3">
      <span className="w-28 shrink-0 text-sm text-slate">{name}</span>
      <span aria-hidden="true" className="relative h-4 grow overflow-hidden rounded bg-mist">
        {did.answered > 0 && (
          <>
            <span className="absolute inset-y-0 start-0 bg-fern" style={{ width: percent(did.right / did.answered) }} />
            <span
              className="absolute inset-y-1.5 bg-night/60"
              style={{ insetInlineStart: percent(did.span.low), width: percent(did.span.high - did.span.low) }}
            />
          </>
        )}
      </span>
      <span className="w-28 shrink-0 text-sm tabular-nums">
        {t('analysis.rightOf', { right: did.right, of: did.answered })}
      </span>
    </div>
  )
}
