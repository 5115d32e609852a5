import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call, codeOf } from '../../wire/http'
import type { AnswerValue, Question, QuestionTried } from '../../wire/types.gen'
import { Answer } from '../answers/Answer'
import { VerdictSign } from '../charts/VerdictSign'
import { whole } from './whole'

const CALM_MS = 400

/** The question as students have it, to answer at once: whether it can be asked, and what is thought of an answer. */
export function TryAnswer({ question }: { question: Question }) {
  const { t } = useTranslation()
  const [value, setValue] = useState<AnswerValue | null>(null)
  const [tried, setTried] = useState<QuestionTried | { problem: string } | null>(null)
  const asked = whole(question)
  const given = value?.kind === question.kind ? value : undefined
  const sent = JSON.stringify({ asked, value: given })
  useEffect(() => {
    let here = true
    const soon = setTimeout(() => {
      call<QuestionTried>('POST', '/questions/try', JSON.parse(sent)).then(
        (told) => here && setTried(told),
        (error: unknown) => here && setTried({ problem: codeOf(error) }),
      )
    }, CALM_MS)
    return () => {
      here = false
      clearTimeout(soon)
    }
  }, [sent])
  if (!tried) return null
  if ('problem' in tried)
    return (
      <p role="alert" className="rounded-lg bg-amber-soft px-3 py-2">
        {t(`refusal.${tried.problem}`)}
      </p>
    )
  return (
    <details className="rounded-xl border border-line bg-snow p-3">
      <summary className="cursor-pointer font-semibold">{t('question.try')}</summary>
      <div className="mt-2 text-[15px]">
        <Answer asked={tried.seen} given={given as never} open revealed={false} onGive={setValue} seed="" />
        <p role="status" className="mt-2 flex items-center gap-2">
          {tried.refused && t(`refusal.${tried.refused}`)}
          {tried.judged && (
            <>
              <VerdictSign verdict={tried.judged.verdict} />
              {tried.judged.verdict && t(`poll.verdict_${tried.judged.verdict}`)}
              {tried.judged.mistake && <span className="text-amber">{tried.judged.mistake}</span>}
              {tried.judged.reason && t(`poll.reason_${tried.judged.reason}`)}
              {tried.says && <span className="text-slate">({tried.says})</span>}
            </>
          )}
        </p>
      </div>
    </details>
  )
}
