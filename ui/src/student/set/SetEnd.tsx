import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { VerdictSign } from '../../polls/charts/VerdictSign'
import { answersIn } from '../../rules/answers'
import type { Shown } from '../../wire/sheets'
import type { Element, Results, Stage } from '../../wire/types.gen'
import { useLesson, useLessonState } from '../../wire/hooks/useLesson'

type Props = {
  polls: Array<Element & { kind: 'poll' }>
  stage: Stage
  own: Shown | undefined
  round: number
  handed: boolean
  results: Results | null
  onGo: (to: number) => void
}

/** The end of a row at own pace: what is answered, handing in, and how it went as far as that is told. */
export function SetEnd({ polls, stage, own, round, handed, results, onGo }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [asked, ask] = useState(false)
  const missing = polls.filter((p) => answersIn(own?.marks ?? [], p.id, stage.polls[p.id]?.round ?? 1).length === 0)
  const told = results !== null && Object.keys(results.verdicts).length > 0
  const open = polls.some((p) => stage.polls[p.id]?.phase === 'open')
  const handsIn = stage.frame.set?.feedback === 'end' && !handed && open
  const sent = useLessonState((s) => s.unsaved > 0)
  const handIn = () => own && lesson.do(own.sheet, { kind: 'handIn', handIn: { round } })
  return (
    <section aria-labelledby="set-end" className="rounded-xl border-2 border-line bg-paper p-5">
      <h2 id="set-end" className="font-display text-2xl leading-tight font-semibold">
        {missing.length > 0 && open && !handed
          ? t('set.missing', { count: missing.length })
          : told && results.of > 0
            ? t('set.result', { right: results.right, count: results.of })
            : t('set.allAnswered')}
      </h2>
      {told && results.of > 0 && missing.length > 0 && open && !handed && (
        <p className="text-slate">{t('set.soFar', { right: results.right, count: results.of })}</p>
      )}
      {told && results.partly > 0 && <p className="text-slate">{t('set.partly', { count: results.partly })}</p>}
      {!told && !handsIn && open && <p className="mt-1 text-slate">{t('set.waits')}</p>}
      <ol className="mt-4 flex flex-col gap-1">
        {polls.map((p, i) => {
          const verdict = results?.verdicts[p.id]?.verdict
          return (
            <li key={p.id}>
              <button
                type="button"
                onClick={() => onGo(i)}
                className="flex min-h-11 w-full items-center gap-3 rounded-lg px-2 py-1 text-start hover:bg-mist"
              >
                <span className="w-6 shrink-0 text-end font-semibold text-slate tabular-nums">{i + 1}</span>
                <span dir="auto" className="min-w-0 grow">
                  {p.poll.text}
                </span>
                <span className="flex shrink-0 items-center gap-1.5 text-sm text-slate">
                  {verdict ? (
                    <VerdictSign verdict={verdict} named />
                  ) : (
                    t(missing.includes(p) ? 'set.notAnswered' : 'set.answered')
                  )}
                </span>
              </button>
            </li>
          )
        })}
      </ol>
      {handsIn && (
        <div className="mt-5 flex flex-wrap items-center gap-3">
          {asked ? (
            <>
              <p role="status" className="basis-full font-semibold">
                {missing.length > 0 ? t('set.sureMissing', { count: missing.length }) : t('set.sure')}
              </p>
              <Button look="main" disabled={sent} onClick={handIn}>
                {t('set.handInYes')}
              </Button>
              <Button onClick={() => ask(false)}>{t('set.notYet')}</Button>
            </>
          ) : (
            <Button look="main" onClick={() => ask(true)}>
              {t('set.handIn')}
            </Button>
          )}
        </div>
      )}
      {handed && (
        <p role="status" className="mt-4 font-semibold text-fern-deep">
          {t('set.handedIn')}
        </p>
      )}
    </section>
  )
}
