import { useEffect, useId, useRef, useState } from 'react'

type Props = {
  label: string
  hideLabel?: boolean
  help?: string
  value: string
  limit: number
  rows?: number
  required?: boolean
  onChange: (next: string) => void
}

const SAVE_AFTER_MS = 700

/** Words that are saved while they are typed, and at the latest when the focus leaves. */
export function Typed({ label, hideLabel, help, value, limit, rows, required, onChange }: Props) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const save = useRef(() => {})
  useEffect(() => {
    save.current = () => {
      clearTimeout(timer.current)
      if (text !== null && text !== value && !(required && text.trim() === '')) onChange(text)
    }
  })
  useEffect(() => () => save.current(), [])
  const props = {
    id,
    value: text ?? value,
    maxLength: limit,
    'aria-describedby': help ? `${id}-help` : undefined,
    className: `w-full rounded-lg border bg-paper px-2.5 py-1.5 ${hideLabel ? 'border-transparent hover:border-edge' : 'border-edge'}`,
    onChange: (e: { target: { value: string } }) => {
      setText(e.target.value)
      clearTimeout(timer.current)
      timer.current = setTimeout(() => save.current(), SAVE_AFTER_MS)
    },
    onBlur: () => {
      save.current()
      setText(null)
    },
  }
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'mb-1 block text-sm font-semibold'}>
        {label}
      </label>
      {rows ? <textarea {...props} rows={rows} /> : <input {...props} />}
      {help && (
        <p id={`${id}-help`} className="mt-1 text-sm text-slate">
          {help}
        </p>
      )}
    </div>
  )
}
