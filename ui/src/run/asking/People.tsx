import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { VerdictSign } from '../../polls/charts/VerdictSign'
import { codeOf } from '../../wire/http'
import type { AnswerOf, Element, Frame, Outcome } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

type Props = { mark: Element & { kind: 'poll' }; outcome: Outcome; frame: Frame }

/** Whom to look at: sure and wrong, no answer yet; and everybody's answer, on demand. */
export function People({ mark, outcome, frame }: Props) {
  const { t, i18n } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const [all, setAll] = useState<AnswerOf[] | null>(null)
  const name = (id: string) => people.get(id)?.name ?? t('frame.somebody')
  const names = (ids: string[]) => new Intl.ListFormat(i18n.language, { type: 'unit' }).format(ids.map(name))
  const confident = outcome.answers.filter((a) => a.sure === 'sure' && a.verdict === 'wrong' && !a.late)
  const box = 'rounded-xl border border-line bg-paper p-4'
  const look = () =>
    void lesson.outcomesOf(frame.id).then(
      (told) => setAll(told.find((o) => o.poll === mark.id)?.answers ?? []),
      (error: unknown) => lesson.tell(codeOf(error)),
    )
  return (
    <>
      {confident.length > 0 && (
        <section className={box} aria-label={t('asking.confident')}>
          <h3 className="font-semibold">{t('asking.confident')}</h3>
          <p>{names(confident.map((a) => a.student))}</p>
        </section>
      )}
      {outcome.waiting.length > 0 && (
        <section className={box} aria-label={t('asking.waiting')}>
          <h3 className="font-semibold">{t('asking.waiting')}</h3>
          <p className="max-h-40 overflow-auto">{names(outcome.waiting)}</p>
        </section>
      )}
      <Button onClick={look}>{t('asking.all')} …</Button>
      {all && (
        <Dialog wide open onOpenChange={() => setAll(null)} title={mark.poll.text}>
          <table className="w-full border-separate border-spacing-y-1 text-start">
            <thead className="text-start text-sm text-slate">
              <tr>
                {(['who', 'what', 'how'] as const).map((k) => (
                  <th key={k} scope="col" className="text-start font-normal">
                    {t(`asking.${k}`)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {all.map((a) => (
                <tr key={a.student}>
                  <th scope="row" className="pe-3 text-start align-top">
                    {name(a.student)}
                  </th>
                  <td className="pe-3" dir="auto">
                    <span className="inline-flex gap-2">
                      <VerdictSign verdict={a.verdict} />
                      {words(a, t(`poll.truth_${a.value.kind === 'truth' ? a.value.truth.is : 'notSure'}`))}
                    </span>
                    {a.mistake && <span className="block text-sm text-amber">{a.mistake}</span>}
                  </td>
                  <td className="align-top text-sm text-slate">
                    {[
                      a.sure && t(`poll.${a.sure}`),
                      a.late && t('asking.late'),
                      a.offline && t('asking.offline'),
                      a.reason && t(`poll.reason_${a.reason}`),
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Dialog>
      )}
    </>
  )
}

/** What an answer says; what has no words of its own is said in those of the screen. */
const words = (a: AnswerOf, truth: string) => (a.value.kind === 'truth' ? truth : a.says)
