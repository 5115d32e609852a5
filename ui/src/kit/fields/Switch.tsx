import { Switch as Radix } from 'radix-ui'
import { useId } from 'react'

type Props = {
  label: string
  /** What it does, in a sentence. */
  help?: string
  on: boolean
  onSwitch: (on: boolean) => void
}

/** Something that is on or off, with a sentence that says what it does. */
export function Switch({ label, help, on, onSwitch }: Props) {
  const id = useId()
  return (
    <div className="flex items-start gap-3">
      <Radix.Root
        id={id}
        checked={on}
        onCheckedChange={onSwitch}
        aria-describedby={help ? `${id}-help` : undefined}
        className="mt-0.5 h-6 w-11 shrink-0 rounded-full border border-edge bg-mist p-0.5 data-[state=checked]:border-dusk data-[state=checked]:bg-dusk"
      >
        <Radix.Thumb className="block size-4.5 rounded-full border border-edge bg-paper transition-transform data-[state=checked]:translate-x-5 rtl:data-[state=checked]:-translate-x-5" />
      </Radix.Root>
      <div>
        <label htmlFor={id} className="block font-semibold">
          {label}
        </label>
        {help && (
          <p id={`${id}-help`} className="text-slate">
            {help}
          </p>
        )}
      </div>
    </div>
  )
}
