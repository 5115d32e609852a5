import { useId, type ComponentProps, type ReactNode } from 'react'

type Props = ComponentProps<'input'> & { label: string; help?: ReactNode; problem?: string | null }

/** A labelled input with its help and, if something is wrong, what to do. */
export function Field({ label, help, problem, className = '', ...rest }: Props) {
  const id = useId()
  return (
    <div className="w-full text-start">
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      <input
        id={id}
        aria-describedby={`${id}-help ${id}-problem`}
        aria-invalid={problem ? true : undefined}
        className={`w-full rounded-xl border-2 bg-paper px-4 py-3 ${problem ? 'border-rose' : 'border-edge'} ${className}`}
        {...rest}
      />
      <p id={`${id}-problem`} role="alert" className="mt-2 font-semibold text-rose empty:hidden">
        {problem && (
          <>
            <span aria-hidden="true">! </span>
            {problem}
          </>
        )}
      </p>
      <p id={`${id}-help`} className="mt-2 text-slate empty:hidden">
        {help}
      </p>
    </div>
  )
}
