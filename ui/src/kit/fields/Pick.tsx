import { useId } from 'react'

type Props<V extends string> = {
  label: string
  /** What it does, in a sentence. */
  help?: string
  value: V
  options: ReadonlyArray<{ value: V; name: string }>
  onPick: (value: V) => void
}

/** One of several, in a list that opens. */
export function Pick<V extends string>({ label, help, value, options, onPick }: Props<V>) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="block font-semibold">
        {label}
      </label>
      {help && (
        <p id={`${id}-help`} className="text-slate">
          {help}
        </p>
      )}
      <select
        id={id}
        aria-describedby={help ? `${id}-help` : undefined}
        className="mt-1 w-full max-w-sm rounded-lg border border-edge bg-paper px-3 py-2"
        value={value}
        onChange={(e) => onPick(e.target.value as V)}
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.name}
          </option>
        ))}
      </select>
    </div>
  )
}
