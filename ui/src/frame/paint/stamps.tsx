import type { Sign } from '../../wire/types.gen'

export const signs: Sign[] = ['right', 'unsure', 'question', 'idea', 'star', 'heart', 'pin', 'alert']

/** The stamps' grounds, told apart by their drawing first and by colour second. */
export const stampGround: Record<Sign, string> = {
  right: 'fill-fern',
  unsure: 'fill-slate',
  question: 'fill-dusk',
  idea: 'fill-amber',
  star: 'fill-dusk',
  heart: 'fill-rose',
  pin: 'fill-glow',
  alert: 'fill-rose',
}

/** The same grounds as tokens, for painting on a canvas. */
export const stampToken: Record<Sign, string> = {
  right: 'fern',
  unsure: 'slate',
  question: 'dusk',
  idea: 'amber',
  star: 'dusk',
  heart: 'rose',
  pin: 'glow',
  alert: 'rose',
}

/** What is drawn on each stamp, on a ground of 48 x 48. */
export const stampPaths: Record<Sign, { fill?: string; line?: string }> = {
  right: { line: 'M13 25l8 8 15-18' },
  unsure: { line: 'M12 27c4-7 8-7 12-2s8 5 12-2' },
  question: { line: 'M17 18c0-9 14-9 14 0 0 6-7 5-7 11', fill: 'M24 34a2.6 2.6 0 1 1 0 5.2 2.6 2.6 0 0 1 0-5.2Z' },
  idea: { line: 'M20 37h8M19 32c0-4-5-6-5-12a10 10 0 0 1 20 0c0 6-5 8-5 12Z' },
  star: { fill: 'M24 10l4.2 9.3 10.1 1-7.6 6.7 2.2 10-8.9-5.2-8.9 5.2 2.2-10-7.6-6.7 10.1-1Z' },
  heart: { fill: 'M24 38C8 28 10 12 19 13c3 .3 4.5 2.5 5 4.5.5-2 2-4.2 5-4.5 9-1 11 15-5 25Z' },
  pin: {
    fill: 'M24 9a10 10 0 0 1 10 10c0 8-10 20-10 20S14 27 14 19A10 10 0 0 1 24 9Zm0 6a4 4 0 1 0 0 8 4 4 0 0 0 0-8Z',
  },
  alert: { line: 'M24 11v17', fill: 'M24 33a2.8 2.8 0 1 1 0 5.6 2.8 2.8 0 0 1 0-5.600Z' },
}

/** A stamp, drawn for this project. */
export function StampSign({ sign, className }: { sign: Sign; className?: string }) {
  const { fill, line } = stampPaths[sign]
  return (
    <svg viewBox="0 0 48 48" className={`pointer-events-none ${className ?? ''}`} aria-hidden="true">
      <circle cx="24" cy="24" r="22.5" className={stampGround[sign]} />
      <circle cx="24" cy="24" r="19.5" className="fill-none stroke-paper" strokeWidth="1.5" strokeDasharray="2.6 2.6" />
      {fill && <path d={fill} className="fill-paper" fillRule="evenodd" />}
      {line && (
        <path
          d={line}
          className="fill-none stroke-paper"
          strokeWidth="4"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
    </svg>
  )
}
