import type { LucideIcon } from 'lucide-react'

type Props<V extends string> = {
  name: string
  label: string
  all: ReadonlyArray<{ value: V; icon: LucideIcon; label: string }>
  value: V
  onPick: (value: V) => void
}

/** One of a few, each with its sign and its word. */
export function Choice<V extends string>({ name, label, all, value, onPick }: Props<V>) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="flex gap-1.5">
        {all.map(({ value: v, icon: Icon, label: word }) => (
          <label
            key={v}
            className={`relative flex grow basis-0 cursor-pointer flex-col items-center gap-1 rounded-lg border px-1 py-1.5 text-center text-sm leading-tight has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${v === value ? 'border-dusk bg-paper font-semibold text-dusk' : 'border-line bg-paper text-slate hover:border-edge'}`}
          >
            <input
              type="radio"
              name={name}
              value={v}
              checked={v === value}
              onChange={() => onPick(v)}
              className="sr-only"
            />
            <Icon size={18} aria-hidden="true" />
            {word}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
