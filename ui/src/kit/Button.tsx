import type { ComponentProps } from 'react'

const looks = {
  main: 'bg-dusk text-paper border-dusk hover:bg-night disabled:bg-slate disabled:border-slate',
  plain: 'bg-paper text-night border-edge hover:bg-mist disabled:text-slate',
  quiet: 'bg-transparent text-slate border-transparent hover:bg-mist hover:text-night',
  glow: 'bg-glow text-paper border-glow hover:bg-glow-deep',
  rose: 'bg-paper text-rose border-rose hover:bg-rose-soft',
}

type Props = ComponentProps<'button'> & { look?: keyof typeof looks; size?: 'small' | 'large' }

/** A button in our look. */
export function Button({ look = 'plain', size = 'small', className = '', ...rest }: Props) {
  const space = size === 'large' ? 'px-7 py-3 text-lg rounded-xl' : 'px-3 py-1.5 rounded-lg'
  return (
    <button
      type="button"
      data-look={look}
      className={`inline-flex items-center justify-center gap-2 border font-semibold whitespace-nowrap ${space} ${looks[look]} ${className}`}
      {...rest}
    />
  )
}
