/** The mark of the house: a mountain with the first light on its ridge. */
export function Logo({ className = 'h-7' }: { className?: string }) {
  return (
    <svg viewBox="0 0 32 28" className={className} aria-hidden="true">
      <path d="M1 26 12 5l6 10 4-7 9 18z" className="fill-dusk" />
      <path
        d="m12 5 6 10 4-7"
        className="fill-none stroke-dawn"
        strokeWidth="3"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  )
}
