import { useTranslation } from 'react-i18next'
import type { TextBlank as Blank, TextMistake, TextPart } from '../../wire/types.gen'
import { option } from '../kinds'
import { BlankMistakes } from './Mistakes'
import { MistakeName } from './MistakeName'
import { field, type FieldsProps } from './props'
import { Rows } from './Rows'

const lines = (text: string) => text.split('\n')

/** A short text: what is accepted, how many slips are forgiven, and known wrong ones. */
export function ShortFields({ asked, onAsked }: FieldsProps<'short'>) {
  const { t } = useTranslation()
  const { short } = asked
  const put = (part: Partial<typeof short>) => onAsked({ kind: 'short', short: { ...short, ...part } })
  return (
    <div className="flex flex-col gap-3">
      <label className="flex flex-col gap-1 font-semibold">
        {t('question.accepted')}
        <textarea
          rows={3}
          dir="auto"
          value={(short.accepted ?? []).join('\n')}
          onChange={(e) => put({ accepted: e.target.value ? lines(e.target.value) : undefined })}
          className={`${field} font-normal`}
        />
      </label>
      <Slips slips={short.slips ?? 0} onSlips={(slips) => put({ slips })} />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={short.withCase ?? false}
          onChange={(e) => put({ withCase: e.target.checked || undefined })}
        />
        {t('question.withCase')}
      </label>
      {(short.accepted?.length ?? 0) > 0 && (
        <Rows<TextMistake>
          legend={t('question.mistakes')}
          rows={short.mistakes ?? []}
          keyOf={(_, at) => `${at}`}
          onRows={(mistakes) => put({ mistakes })}
          fresh={() => ({ name: '', texts: [''] })}
          least={0}
          most={12}
          add={t('question.addMistake')}
          drop={(n) => t('question.dropMistake', { n })}
        >
          {(m, at, set) => (
            <>
              <input
                aria-label={t('question.mistakeFrom', { n: at + 1 })}
                placeholder={t('question.wrongText')}
                value={m.texts.join(' / ')}
                dir="auto"
                onChange={(e) => set({ texts: e.target.value.split('/').map((x) => x.trimStart()) })}
                className={`${field} grow`}
              />
              <MistakeName n={at + 1} name={m.name} onName={(to) => set({ name: to })} />
            </>
          )}
        </Rows>
      )}
    </div>
  )
}

function Slips({ slips, onSlips }: { slips: number; onSlips: (slips: number) => void }) {
  const { t } = useTranslation()
  return (
    <label className="flex items-center gap-2">
      {t('question.slips')}
      <select value={slips} onChange={(e) => onSlips(Number(e.target.value))} className={field}>
        {[0, 1, 2, 3].map((n) => (
          <option key={n}>{n}</option>
        ))}
      </select>
    </label>
  )
}

/**
 * The parts of a text in which each pair of brackets is a blank with what is right in it. The
 * blanks keep what is known of those that stood in their places.
 */
export function partsOf(text: string, choose: boolean, others: string[], before: Blank[] = []): TextPart[] {
  const parts: TextPart[] = []
  const rights: string[] = []
  let n = 0
  for (const [i, piece] of text.split(/\[([^\]]*)\]/).entries()) {
    if (i % 2 === 0) {
      if (piece) parts.push({ text: piece })
      continue
    }
    const accepted = piece
      .split('/')
      .map((x) => x.trim())
      .filter(Boolean)
    if (accepted[0]) rights.push(accepted[0])
    const was = before[n++]
    parts.push({ blank: { id: was?.id ?? option().id, accepted, ...(was?.mistakes && { mistakes: was.mistakes }) } })
  }
  const offered = [...new Set([...rights, ...others])].sort((a, b) => a.localeCompare(b))
  if (choose && offered.length > 1) for (const { blank } of parts) if (blank) blank.offered = offered
  return parts
}

/** A text with blanks, written with brackets. */
export function BlanksFields({ asked, onAsked }: FieldsProps<'blanks'>) {
  const { t } = useTranslation()
  const { parts, slips = 0 } = asked.blanks
  const text = parts.map((p) => (p.blank ? `[${(p.blank.accepted ?? []).join(' / ')}]` : (p.text ?? ''))).join('')
  const blanks = parts.flatMap((p) => p.blank ?? [])
  const choose = blanks.some((b) => b.offered?.length)
  const rights = blanks.map((b) => b.accepted?.[0] ?? '')
  const others = [...new Set(blanks.flatMap((b) => b.offered ?? []))].filter((o) => !rights.includes(o))
  const put = (words: string, pick: boolean, more: string[], forgiven = slips) =>
    onAsked({ kind: 'blanks', blanks: { parts: partsOf(words, pick, more, blanks), slips: forgiven } })
  return (
    <div className="flex flex-col gap-3">
      <label className="flex flex-col gap-1 font-semibold">
        {t('question.blanksText')}
        <textarea
          rows={4}
          dir="auto"
          value={text}
          onChange={(e) => put(e.target.value, choose, others)}
          className={`${field} font-normal`}
        />
        <span className="text-sm font-normal text-slate">{t('question.blanksHint')}</span>
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={choose}
          onChange={(e) => put(text, e.target.checked, e.target.checked ? ['…'] : [])}
        />
        {t('question.blanksChoose')}
      </label>
      {choose ? (
        <label className="flex flex-col gap-1">
          {t('question.blanksOthers')}
          <textarea
            rows={2}
            dir="auto"
            value={others.join('\n')}
            onChange={(e) => put(text, true, lines(e.target.value).filter(Boolean))}
            className={field}
          />
        </label>
      ) : (
        <Slips slips={slips} onSlips={(n) => put(text, choose, others, n)} />
      )}
      {blanks.length > 0 && (
        <BlankMistakes
          key={blanks.length}
          blanks={blanks}
          onBlanks={(to) => {
            let n = 0
            const next = parts.map((p) => (p.blank ? { blank: to[n++]! } : p))
            onAsked({ kind: 'blanks', blanks: { ...asked.blanks, parts: next } })
          }}
        />
      )}
    </div>
  )
}
