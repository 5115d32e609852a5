import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { give, type AnswerProps } from './props'
import { useUnsaid } from './useUnsaid'

/** A text with blanks, which are typed or chosen. */
export function Blanks({ asked, given, open, revealed, onGive, keeps }: AnswerProps<'blanks'>) {
  const { t } = useTranslation()
  const saved = Object.fromEntries((given?.blanks.in ?? []).map((p) => [p.blank, p.text]))
  const [begun, begin] = useState<Record<string, string> | null>(null)
  const texts = begun ?? saved
  const filled = asked.blanks.parts.flatMap(({ blank }) =>
    blank && texts[blank.id]?.trim() ? [{ blank: blank.id, text: texts[blank.id]!.trim() }] : [],
  )
  const same = JSON.stringify(filled) === JSON.stringify(given?.blanks.in ?? [])
  const put = () => onGive?.({ kind: 'blanks', blanks: { in: filled } })
  useUnsaid(open, keeps && onGive && !same && filled.length > 0 ? put : null)
  const look = 'mx-[0.2em] inline-block min-h-[2em] rounded-[0.3em] border-2 border-edge bg-paper px-[0.4em]'
  const blanks = asked.blanks.parts.flatMap(({ blank }) => blank?.id ?? [])
  return (
    <form
      className="flex flex-col gap-[0.8em]"
      onSubmit={(e) => {
        e.preventDefault()
        if (!same && filled.length > 0) put()
      }}
    >
      <p dir="auto" className="leading-[2.2] whitespace-pre-wrap">
        {asked.blanks.parts.map(({ text, blank }, i) => {
          if (!blank) return <span key={i}>{text}</span>
          const props = {
            'aria-label': t('poll.blank', { n: blanks.indexOf(blank.id) + 1 }),
            value: texts[blank.id] ?? '',
            disabled: !open,
            className: look,
          }
          const write = (to: string) => begin({ ...texts, [blank.id]: to })
          return (
            <span key={blank.id}>
              {!onGive ? (
                <span className={`${look} min-w-[5em]`}>{revealed ? blank.accepted?.[0] : ' '}</span>
              ) : blank.offered?.length ? (
                <select {...props} onChange={(e) => write(e.target.value)}>
                  <option value="">…</option>
                  {blank.offered.map((o) => (
                    <option key={o}>{o}</option>
                  ))}
                </select>
              ) : (
                <input
                  {...props}
                  dir="auto"
                  size={10}
                  maxLength={200}
                  autoComplete="off"
                  onChange={(e) => write(e.target.value)}
                />
              )}
              {revealed && onGive && blank.accepted && (
                <b className="me-[0.2em] text-[0.85em] text-fern-deep">✓ {blank.accepted[0]}</b>
              )}
            </span>
          )
        })}
      </p>
      {open && onGive && (
        <button type="submit" className={give} disabled={same || filled.length === 0}>
          {t('poll.giveIt')}
        </button>
      )}
    </form>
  )
}
