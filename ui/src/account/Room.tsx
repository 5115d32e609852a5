import { useId, type ReactNode } from 'react'

type Props = { title: string; text?: string; children: ReactNode }

/** What belongs together on such a page. */
export function Room({ title, text, children }: Props) {
  const id = useId()
  return (
    <section aria-labelledby={id} className="flex flex-col gap-4 rounded-2xl border border-line bg-paper p-5">
      <div>
        <h2 id={id} className="text-xl">
          {title}
        </h2>
        {text && <p className="text-slate">{text}</p>}
      </div>
      {children}
    </section>
  )
}
