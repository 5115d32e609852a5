import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'

type Props = {
  label: string
  value: number
  /** Takes a number; false when it does not fit the others. */
  onChange: (value: number) => boolean
}

/** A number that is taken when it is one and fits; until then it says what is wrong. */
export function NumberField({ label, value, onChange }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [wrong, setWrong] = useState(false)
  return (
    <div>
      <label htmlFor={id} className="block text-xs text-slate">
        {label}
      </label>
      <input
        id={id}
        inputMode="decimal"
        value={text ?? String(value)}
        aria-invalid={wrong || undefined}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        className={`w-full rounded-md border bg-paper px-1.5 py-1 tabular-nums ${wrong ? 'border-rose' : 'border-edge'}`}
        onChange={(e) => {
          const typed = e.target.value.replace('\u2212', '-').replace(',', '.')
          setText(e.target.value)
          const n = Number(typed)
          setWrong(typed.trim() === '' || !Number.isFinite(n) || !onChange(n))
        }}
        onBlur={() => {
          setText(null)
          setWrong(false)
        }}
      />
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="text-xs font-semibold text-rose">
          {t('prepare.numberWrong')}
        </p>
      )}
    </div>
  )
}
