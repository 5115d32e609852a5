import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Pick } from '../kit/fields/Pick'
import { LevelBadge } from '../kit/LevelBadge'
import { Refusal } from '../kit/Refusal'
import { marksOf } from '../rules/answers'
import { call, codeOf } from '../wire/http'
import type { Frame, FrameRecord, WorkJudged } from '../wire/types.gen'

type Props = {
  session: string
  frames: Frame[]
  /** What one thinks of the work oneself. */
  judged: WorkJudged[]
}

/** One frame of all students beside each other: each leads to where it is judged. */
export function ByFrame({ session, frames, judged }: Props) {
  const { t } = useTranslation()
  const [at, choose] = useState(frames[0]?.id ?? '')
  const query = useQuery({
    queryKey: ['record', session, 'frame', at],
    queryFn: () => call<FrameRecord>('GET', `/sessions/${session}/frames/${at}`),
  })
  const n = frames.findIndex((f) => f.id === at)
  const frame = frames[n]
  if (!frame) return null
  const all = (query.data?.students ?? []).map((s) => ({ student: s, on: s.frames[0]! }))
  const left = all.filter(({ on }) => on.marks.length + on.answers.length > 0)
  const nothing = all.filter(({ on }) => on.marks.length + on.answers.length === 0)
  return (
    <div className="flex flex-col gap-4">
      <Pick
        label={t('record.frame')}
        value={at}
        options={frames.map((f, i) => ({ value: f.id, name: `${i + 1}. ${f.title || f.prompt}` }))}
        onPick={choose}
      />
      <Refusal code={query.isError ? codeOf(query.error) : null} />
      {query.isPending && <p role="status">{t('loading')}</p>}
      <ul className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        {left.map(({ student, on }) => {
          const level = judged.find((j) => j.student === student.id && j.frame === at && !j.mark && !j.criterion)?.level
          return (
            <li key={student.id} className="flex flex-col gap-2 rounded-2xl border border-line bg-paper p-3">
              <h3 className="flex flex-wrap items-center gap-2">
                <Link
                  to={`/records/${session}/marking?frame=${at}&student=${student.id}`}
                  className="min-w-0 truncate font-semibold text-dusk underline underline-offset-4"
                >
                  <bdi>{student.name}</bdi>
                </Link>
                {level && <LevelBadge level={level} />}
              </h3>
              <div className="overflow-hidden rounded-lg border border-line">
                <Thumbnail
                  frame={frame}
                  marks={[...on.marks, ...marksOf(on.answers)]}
                  width={340}
                  label={t('record.pictureOf', { name: student.name, n: n + 1 })}
                />
              </div>
              <p dir="auto" className="text-sm break-words empty:hidden">
                {on.answers.map((a) => a.text).join(' · ')}
              </p>
            </li>
          )
        })}
      </ul>
      {nothing.length > 0 && (
        <p className="text-slate">
          {t('record.nothingOn', { names: nothing.map(({ student }) => student.name).join(', ') })}
        </p>
      )}
    </div>
  )
}
