import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'

type Props = { names: string[]; value: string; problem?: string | null; onChange: (name: string) => void }

/** The class list, to choose one's own name from. */
export function ChooseName({ names, value, problem, onChange }: Props) {
  const { t } = useTranslation()
  const first = useRef<HTMLInputElement>(null)
  useEffect(() => first.current?.focus(), [])
  return (
    <fieldset className="w-full text-start">
      <legend className="mb-2 font-semibold">{t('join.chooseName')}</legend>
      <div className="grid max-h-[46vh] grid-cols-2 gap-1.5 overflow-auto rounded-xl border-2 border-edge bg-paper p-2">
        {names.map((name, i) => (
          <label
            key={name}
            className={`flex cursor-pointer items-center gap-2 rounded-lg px-2 py-2 has-focus-visible:outline-3 has-focus-visible:outline-dusk ${name === value ? 'bg-dusk-soft font-semibold text-dusk' : 'hover:bg-mist'}`}
          >
            <input
              ref={i === 0 ? first : undefined}
              type="radio"
              name="name"
              value={name}
              checked={name === value}
              onChange={() => onChange(name)}
              className="size-4 shrink-0 accent-dusk outline-none"
            />
            <span className="min-w-0 break-words">{name}</span>
          </label>
        ))}
      </div>
      <p role="alert" className="mt-2 font-semibold text-rose empty:hidden">
        {problem}
      </p>
    </fieldset>
  )
}
