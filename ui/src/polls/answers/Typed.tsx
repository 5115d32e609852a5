import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { AnswerValue } from '../../wire/types.gen'
import { field, give, type AnswerProps } from './props'
import { useUnsaid } from './useUnsaid'

type Props = {
  value?: string
  open: boolean
  onGive?: (text: string) => void
  label: string
  /** Behind what is typed: a unit. */
  behind?: string
  long?: boolean
  keeps?: boolean
  most: number
  numeric?: boolean
  right?: string
}

/** Something that is typed, and given with a button or Enter. */
function Typed({ value, open, onGive, label, behind, long, keeps, most, numeric, right }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const [begun, begin] = useState<string | null>(null)
  const text = begun ?? value ?? ''
  const same = text.trim() === (value ?? '')
  // What somebody has written in their own words is not lost when the class goes on, or the page goes.
  useUnsaid(open, (long || keeps) && onGive && !same && text.trim() ? () => onGive(text.trim()) : null)
  const props = {
    id,
    value: text,
    dir: 'auto' as const,
    maxLength: most,
    disabled: !open,
    className: field,
    autoComplete: 'off',
  }
  return (
    <form
      className="flex flex-col gap-[0.6em]"
      onSubmit={(e) => {
        e.preventDefault()
        if (!same && text.trim()) onGive?.(text.trim())
      }}
    >
      <label htmlFor={id} className="text-[0.85em] text-slate">
        {label}
      </label>
      <span className="flex items-center gap-[0.5em]">
        {long ? (
          <textarea rows={4} {...props} onChange={(e) => begin(e.target.value)} />
        ) : (
          <input {...props} inputMode={numeric ? 'text' : undefined} onChange={(e) => begin(e.target.value)} />
        )}
        {behind && <span dir="auto">{behind}</span>}
      </span>
      {right && (
        <p className="font-semibold text-fern-deep">
          {t('poll.rightIs')} <span dir="auto">{right}</span>
        </p>
      )}
      {open && onGive && (
        <button type="submit" className={give} disabled={same || !text.trim()}>
          {t('poll.giveIt')}
        </button>
      )}
    </form>
  )
}

/** A number, as the class's language writes it. */
export function NumberAnswer({ asked, given, open, revealed, onGive, keeps }: AnswerProps<'number'>) {
  const { t } = useTranslation()
  const { unit, unitRule, answer } = asked.number
  return (
    <Typed
      value={given?.number.text}
      open={open}
      onGive={onGive && ((text) => onGive({ kind: 'number', number: { text } }))}
      label={t(unitRule === 'must' ? 'poll.numberMust' : unitRule === 'may' ? 'poll.numberMay' : 'poll.number', {
        unit,
      })}
      behind={unitRule ? undefined : unit}
      keeps={keeps}
      most={80}
      numeric
      right={revealed && answer ? `${answer} ${unit ?? ''}` : undefined}
    />
  )
}

/** A short text. */
export function ShortAnswer({ asked, given, open, revealed, onGive, keeps }: AnswerProps<'short'>) {
  const { t } = useTranslation()
  return (
    <Typed
      value={given?.short.text}
      open={open}
      onGive={onGive && ((text) => onGive({ kind: 'short', short: { text } }))}
      label={t('poll.short')}
      keeps={keeps}
      most={200}
      right={revealed ? asked.short.accepted?.join(' / ') : undefined}
    />
  )
}

/** A text in one's own words. */
export function OpenAnswer({ given, open, onGive }: AnswerProps<'open'>) {
  const { t } = useTranslation()
  const put = (text: string): AnswerValue => ({ kind: 'open', open: { text } })
  return (
    <Typed
      value={given?.open.text}
      open={open}
      onGive={onGive && ((text) => onGive(put(text)))}
      label={t('poll.openWords')}
      long
      most={2000}
    />
  )
}
