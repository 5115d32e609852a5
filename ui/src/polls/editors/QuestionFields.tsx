import { ChevronDown } from 'lucide-react'
import { Collapsible } from 'radix-ui'
import { useId, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import { Button } from '../../kit/Button'
import type { Option, Question } from '../../wire/types.gen'
import { SoundField } from '../sound/SoundField'
import { allKinds, fresh, option, optionsOf, type Kind } from '../kinds'
import { Fields } from './Fields'
import { field, type PickPicture } from './props'

type Props = {
  question: Question
  onQuestion: (to: Question) => void
  pick?: PickPicture
  /** What else is asked here, below all. */
  children?: ReactNode
}

/** A question of another kind; what was offered before is offered again where that can be. */
export function ofKind(q: Question, kind: Kind): Question {
  const { text, picture, sound, link, objectives, why, sure, seconds, shuffle, insteadOf } = q
  const common = { text, picture, sound, link, objectives, why, sure, seconds, shuffle, insteadOf }
  const body = fresh[kind]()
  const before: Option[] = optionsOf(q).map(({ id, text: words, picture: shown }) => ({
    id,
    text: words,
    picture: shown,
  }))
  const list = before.length >= 2 ? before : undefined
  // What is put in order has ids that do not tell when, and so in which order, it was written.
  const anew = list?.slice(0, 8).map((o) => ({ ...o, id: option().id }))
  const kept = q.kind === 'choice' || q.kind === 'several' ? optionsOf(q) : list
  if (body.kind === 'choice') return { ...common, ...body, choice: { options: kept ?? body.choice.options } }
  if (body.kind === 'several') return { ...common, ...body, several: { options: kept ?? body.several.options } }
  if (body.kind === 'order') return { ...common, ...body, order: { options: anew ?? body.order.options } }
  if (body.kind === 'rank') return { ...common, ...body, rank: { options: list?.slice(0, 8) ?? body.rank.options } }
  return { ...common, ...body }
}

/** Where a question is written, of any kind. */
export function QuestionFields({ question, onQuestion, pick, children }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const put = (part: Partial<Question>) => onQuestion({ ...question, ...part } as Question)
  return (
    <div className="flex flex-col gap-4">
      <div>
        <label className="mb-1 block font-semibold" htmlFor={`${id} text`}>
          {t('question.question')}
        </label>
        <textarea
          id={`${id} text`}
          rows={2}
          maxLength={600}
          dir="auto"
          value={question.text}
          onChange={(e) => put({ text: e.target.value })}
          className={`${field} w-full`}
        />
        {question.picture && (
          <img src={pictureURL(question.picture)} alt="" className="mt-2 max-h-32 rounded-lg object-contain" />
        )}
        {pick && (
          <Button
            look="quiet"
            onClick={() => (question.picture ? put({ picture: undefined }) : pick((p) => put({ picture: p.id })))}
          >
            {t(question.picture ? 'question.dropQuestionPicture' : 'question.questionPicture')}
          </Button>
        )}
      </div>
      <label className="flex flex-wrap items-center gap-2 font-semibold">
        {t('question.kind')}
        <select
          value={question.kind}
          onChange={(e) => onQuestion(ofKind(question, e.target.value as Kind))}
          className={`${field} grow font-normal`}
        >
          {allKinds.map((kind) => (
            <option key={kind} value={kind}>
              {t(`question.kind_${kind}`)}
            </option>
          ))}
        </select>
      </label>
      <Fields asked={question} onAsked={(asked) => onQuestion({ ...question, ...asked } as Question)} pick={pick} />
      <Collapsible.Root>
        <Collapsible.Trigger className="group flex items-center gap-1.5 rounded-lg py-1 font-semibold text-slate hover:text-night">
          <ChevronDown size={17} aria-hidden="true" className="transition group-data-[state=open]:rotate-180" />
          {t('question.moreOfQuestion')}
        </Collapsible.Trigger>
        <Collapsible.Content className="flex flex-col gap-3 pt-2">
          <label className="flex flex-col gap-1">
            {t('question.why')}
            <textarea
              rows={2}
              maxLength={1000}
              dir="auto"
              value={question.why ?? ''}
              onChange={(e) => put({ why: e.target.value || undefined })}
              className={field}
            />
          </label>
          {pick && (
            <SoundField label={t('question.sound')} sound={question.sound} onSound={(sound) => put({ sound })} />
          )}
          <label className="flex flex-col gap-1">
            {t('question.link')}
            <input
              type="url"
              inputMode="url"
              placeholder="https://"
              value={question.link ?? ''}
              onChange={(e) => put({ link: e.target.value || undefined })}
              className={field}
            />
          </label>
          {(['sure', 'shuffle'] as const).map((what) => (
            <label key={what} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-dusk"
                checked={question[what] ?? false}
                onChange={(e) => put({ [what]: e.target.checked || undefined })}
              />
              {t(`question.${what}`)}
            </label>
          ))}
          <label className="flex items-center gap-2">
            {t('question.seconds')}
            <input
              type="number"
              min={0}
              max={3600}
              value={question.seconds ?? 0}
              onChange={(e) => put({ seconds: Math.min(3600, Math.max(0, e.target.valueAsNumber || 0)) || undefined })}
              className={`${field} w-24`}
            />
          </label>
          {children}
        </Collapsible.Content>
      </Collapsible.Root>
    </div>
  )
}
