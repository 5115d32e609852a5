const hues = ['bg-who-0', 'bg-who-1', 'bg-who-2', 'bg-who-3', 'bg-who-4', 'bg-who-5', 'bg-who-6', 'bg-who-7']

/** A person's colour, the same on every screen: the class name of a ground for white text. */
export function hueOf(id: string): string {
  let sum = 0
  for (let i = 0; i < id.length; i++) sum = (sum * 31 + id.charCodeAt(i)) >>> 0
  return hues[sum % hues.length]!
}

const letters = new Intl.Segmenter(undefined, { granularity: 'grapheme' })

/** A person's first two letters on their colour. */
export function Face({ id, name, faded = false }: { id: string; name: string; faded?: boolean }) {
  const initials = [...letters.segment(name)].slice(0, 2).map((s) => s.segment)
  return (
    <span
      aria-hidden="true"
      className={`grid size-9 shrink-0 place-items-center rounded-[10px] rounded-br-[3px] text-[13px] font-bold ${faded ? 'bg-mist text-slate' : `text-paper ${hueOf(id)}`}`}
    >
      {initials}
    </span>
  )
}
