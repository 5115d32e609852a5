import { useQuery } from '@tanstack/react-query'
import { Printer } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { Button } from '../kit/Button'
import { LevelBadge } from '../kit/LevelBadge'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { StudentYear as Year, StudentLesson } from '../wire/types.gen'
import { when } from '../words/words'
import { Known, Pieces } from './Known'

const percent = (x: number) => Math.round(100 * x)

/** A student over the lessons of a class, on one page: for the talk with parents, too. */
export function StudentYear() {
  const { t } = useTranslation()
  const { class: of = '', student = '' } = useParams()
  const query = useQuery({
    queryKey: ['student year', of, student],
    queryFn: () => call<Year>('GET', `/classes/${of}/students/${student}/year`),
    staleTime: 0,
  })
  useTitle(query.data?.name)
  const problem = query.isError ? codeOf(query.error) : null
  if (problem === 'sign-in-needed') return <ToSignIn />
  return (
    <Page
      title={query.data?.name ?? t('year.title')}
      back={{ to: `/classes/${of}`, name: t('year.toClass') }}
      action={
        <Button look="main" onClick={() => print()}>
          <Printer size={17} aria-hidden="true" />
          {t('given.print')}
        </Button>
      }
    >
      <Refusal code={problem} />
      {query.isPending && <p role="status">{t('loading')}</p>}
      {query.data && <Told year={query.data} />}
    </Page>
  )
}

function Told({ year }: { year: Year }) {
  const { t } = useTranslation()
  const there = year.lessons.filter((l) => l.there)
  const { change } = year
  return (
    <>
      <header>
        <h2 className="hidden text-2xl print:block">{year.name}</h2>
        <p className="text-slate">{t('year.there', { there: there.length, count: year.lessons.length })}</p>
        {change && (
          <p className="mt-1">
            {t('year.change', {
              before: t('report.right', { right: change.before.right, of: change.before.answered }),
              after: t('report.right', { right: change.after.right, of: change.after.answered }),
            })}{' '}
            <b>
              {t(change.sure ? (change.difference.low > 0 ? 'year.more' : 'year.less') : 'year.unsure', {
                low: percent(change.difference.low),
                high: percent(change.difference.high),
              })}
            </b>
          </p>
        )}
      </header>
      {year.objectives.length > 0 && (
        <section aria-labelledby="objectives">
          <h2 id="objectives" className="mb-2 text-xl">
            {t('year.objectives')}
          </h2>
          <ul className="grid gap-4 sm:grid-cols-2">
            {year.objectives.map((o) => (
              <li key={o.text} className="break-inside-avoid rounded-xl border border-line bg-paper p-4">
                <h3 dir="auto" className="mb-1 font-semibold">
                  {o.text}
                </h3>
                <Known known={o} />
                <Pieces known={o} />
              </li>
            ))}
          </ul>
          <p className="mt-2 text-sm text-slate">{t('year.formula')}</p>
        </section>
      )}
      <section aria-labelledby="lessons">
        <h2 id="lessons" className="mb-2 text-xl">
          {t('year.lessons')}
        </h2>
        <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
          {[...year.lessons].reverse().map((l) => (
            <Lesson key={l.session} lesson={l} />
          ))}
        </ul>
      </section>
    </>
  )
}

function Lesson({ lesson: l }: { lesson: StudentLesson }) {
  const { t } = useTranslation()
  return (
    <li className="flex break-inside-avoid flex-col gap-1 px-4 py-3">
      <p className="flex flex-wrap items-center gap-x-3">
        <Link to={`/records/${l.session}`} className="font-semibold text-dusk underline underline-offset-4">
          {l.title}
        </Link>
        <span className="text-sm text-slate">{when(new Date(l.at).toISOString())}</span>
        {l.level && <LevelBadge level={l.level} />}
      </p>
      {l.there ? (
        <p>
          {t('year.frames', { frames: l.frames, count: l.of })}
          {l.answered > 0 && (
            <>
              {' · '}
              {t('report.right', { right: l.right, of: l.answered })}{' '}
              <span className="text-slate">
                ({t('report.span', { low: percent(l.span.low), high: percent(l.span.high) })})
              </span>
            </>
          )}
        </p>
      ) : (
        <p className="text-slate">{t('year.notThere')}</p>
      )}
      {l.comment && (
        <p dir="auto" className="border-s-4 border-dusk ps-2">
          {l.comment}
        </p>
      )}
      {l.words?.map((w, i) => (
        <blockquote key={i} dir="auto" className="rounded-md bg-snow px-2.5 py-1 break-words whitespace-pre-wrap">
          {w}
        </blockquote>
      ))}
    </li>
  )
}
