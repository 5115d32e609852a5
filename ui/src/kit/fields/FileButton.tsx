import type { LucideIcon } from 'lucide-react'
import { useRef, type ComponentProps } from 'react'
import { Button } from '../Button'

type Props = Pick<ComponentProps<typeof Button>, 'look' | 'disabled' | 'className'> & {
  icon: LucideIcon
  label: string
  /** What files are offered, as an input has it. */
  accept: string
  onFile: (file: File) => void
}

/** A button that lets somebody choose a file; the same file can be chosen again. */
export function FileButton({ icon: Icon, label, accept, onFile, ...look }: Props) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button {...look} onClick={() => input.current?.click()}>
        <Icon size={17} aria-hidden="true" />
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        tabIndex={-1}
        aria-label={label}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) onFile(file)
          e.target.value = ''
        }}
      />
    </>
  )
}
