import { useQuery } from '@tanstack/react-query'
import { ArrowRight, Download, Printer } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Interval, LessonReport, Report, ReportQuestion } from '../wire/types.gen'
import { when } from '../words/words'
import { NextLesson } from './NextLesson'

const link =
  'inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist'

/** How a lesson went, on one page: on the screen, printed, and as files. */
export function ReportPage() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  useTitle(t('report.title'))
  const [next, begin] = useState(false)
  const query = useQuery({
    queryKey: ['report', session],
    queryFn: () => call<LessonReport>('GET', `/sessions/${session}/report`),
    staleTime: 0,
  })
  const problem = query.isError ? codeOf(query.error) : null
  if (problem === 'sign-in-needed') return <ToSignIn />
  const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
  return (
    <Page
      title={t('report.title')}
      back={{ to: `/records/${session}`, name: t('marking.toRecord') }}
      action={
        <div className="flex flex-wrap gap-2">
          <a href={`/api/sessions/${session}/report.pdf?zone=${zone}`} download className={link}>
            <Download size={17} aria-hidden="true" />
            PDF
          </a>
          <a href={`/api/sessions/${session}/report.xlsx`} download className={link}>
            <Download size={17} aria-hidden="true" />
            XLSX
          </a>
          <a href={`/api/sessions/${session}/report.csv`} download className={link}>
            <Download size={17} aria-hidden="true" />
            CSV
          </a>
          <Button onClick={() => print()}>
            <Printer size={17} aria-hidden="true" />
            {t('given.print')}
          </Button>
          {query.data && (
            <Button look="main" onClick={() => begin(true)}>
              {t('nextLesson.open')}
              <ArrowRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
            </Button>
          )}
        </div>
      }
    >
      <Refusal code={problem} />
      {query.isPending && <p role="status">{t('loading')}</p>}
      {query.data && <Sheet told={query.data} />}
      {next && query.data && <NextLesson session={session} told={query.data} onClose={() => begin(false)} />}
    </Page>
  )
}

function Sheet({ told: { report, again } }: { told: LessonReport }) {
  const { t } = useTranslation()
  return (
    <>
      <header>
        <h2 className="text-2xl">{report.title}</h2>
        <p className="text-slate">
          {[
            report.class,
            when(new Date(report.began).toISOString()),
            t('report.here', { count: report.here }) +
              (report.listed ? ` ${t('report.ofList', { count: report.listed })}` : ''),
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </header>
      {report.questions.length > 0 && (
        <section aria-labelledby="questions" className="flex flex-col gap-3">
          <h3 id="questions" className="text-lg">
            {t('report.questions')}
          </h3>
          <ul className="flex flex-col gap-4">
            {report.questions.map((q) => (
              <Question key={q.poll} question={q} />
            ))}
          </ul>
          {report.set?.alpha !== undefined && report.set.alphaSpan && (
            <p className="text-sm text-slate">
              {t('report.reliability', {
                alpha: report.set.alpha.toFixed(2),
                low: report.set.alphaSpan.low.toFixed(2),
                high: report.set.alphaSpan.high.toFixed(2),
              })}
            </p>
          )}
        </section>
      )}
      <div className="grid gap-6 md:grid-cols-2">
        <section aria-labelledby="frames" className="flex flex-col gap-3">
          <h3 id="frames" className="text-lg">
            {t('report.frames')}
          </h3>
          <ul className="flex flex-col gap-3">
            {report.frames.map((f) => (
              <li key={f.id} className="break-inside-avoid">
                <Share part={f.worked} whole={report.here} />
                <p className="font-semibold" dir="auto">
                  {f.n}. {f.title}
                </p>
                <p>{t('report.worked', { count: f.worked, of: report.here })}</p>
              </li>
            ))}
          </ul>
        </section>
        <Follows report={report} again={again} />
      </div>
    </>
  )
}

/** What follows from the figures: mistakes, objectives, whom to look for, what to ask again. */
function Follows({ report, again }: { report: Report; again: LessonReport['again'] }) {
  const { t } = useTranslation()
  const list = (id: string, title: string, lines: string[], none?: string) =>
    (lines.length > 0 || none) && (
      <section aria-labelledby={id} className="break-inside-avoid">
        <h3 id={id} className="mb-1 text-lg">
          {title}
        </h3>
        {lines.length === 0 ? (
          <p className="text-slate">{none}</p>
        ) : (
          <ul className="list-disc ps-5">
            {lines.map((line, i) => (
              <li key={i} dir="auto">
                {line}
              </li>
            ))}
          </ul>
        )}
      </section>
    )
  return (
    <div className="flex flex-col gap-5">
      {list(
        'mistakes',
        t('report.mistakes'),
        report.mistakes.map((m) => t('report.times', { what: m.name, count: m.count })),
      )}
      {list(
        'objectives',
        t('report.objectives'),
        report.objectives.map((o) =>
          t('report.objective', { text: o.text, share: Math.round(100 * o.mean), answers: o.answers }),
        ),
      )}
      {list(
        'sought',
        t('report.sought'),
        report.sought.map((s) => `${s.name}: ${t(`report.${s.why}`, { right: s.right, of: s.of })}`),
        t('report.nobodySought'),
      )}
      {list(
        'next',
        t('report.next'),
        again.map((a) => `${t('report.again')}: ${a.text}`),
        t('report.allWell'),
      )}
    </div>
  )
}

function Question({ question: { n, text, advice, wrong } }: { question: ReportQuestion }) {
  const { t } = useTranslation()
  return (
    <li className="break-inside-avoid">
      {advice && <Share part={advice.right} whole={advice.of} span={advice.span} />}
      <p className="font-semibold" dir="auto">
        {n}. {text}
      </p>
      {advice ? (
        <p>
          {t('report.right', advice)} <Spanned whole={advice.of} span={advice.span} /> ·{' '}
          <b>{t(`report.${advice.is}`)}</b>
          {advice.or && advice.or.length > 0 && (
            <span className="text-slate">
              {' '}
              ({t('report.orElse', { what: advice.or.map((a) => t(`report.${a}`)).join(', ') })})
            </span>
          )}
        </p>
      ) : (
        <p className="text-slate">{t('report.nobody')}</p>
      )}
      {wrong.length > 0 && (
        <p className="text-slate" dir="auto">
          {t('report.instead', {
            what: wrong.map((w) => t('report.times', { what: w.text, count: w.count })).join(', '),
          })}
        </p>
      )}
    </li>
  )
}

/** A share as a bar, and below it the span that it may be. */
function Share({ part, whole, span }: { part: number; whole: number; span?: Interval }) {
  if (whole === 0) return null
  return (
    <svg aria-hidden="true" viewBox="0 0 100 7" preserveAspectRatio="none" className="mb-1 block h-4 w-full max-w-md">
      <rect width="100" height="4" rx="0.6" className="fill-mist" />
      <rect width={(100 * part) / whole} height="4" rx="0.6" className="fill-dusk" />
      {span && (
        <rect x={100 * span.low} y="5" width={100 * (span.high - span.low)} height="0.9" className="fill-slate" />
      )}
    </svg>
  )
}

function Spanned({ whole, span }: { whole: number; span: Interval }) {
  const { t } = useTranslation()
  if (whole === 0) return null
  const percent = (x: number) => Math.round(100 * x)
  return <span className="text-slate">({t('report.span', { low: percent(span.low), high: percent(span.high) })})</span>
}
