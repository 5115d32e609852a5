/** Mountains before sunrise, with the first light on their ridges. */
export function Ridge() {
  return (
    <svg
      aria-hidden="true"
      viewBox="0 0 1280 240"
      preserveAspectRatio="xMidYMax slice"
      className="pointer-events-none absolute inset-x-0 bottom-0 h-[30vh] w-full"
    >
      <path
        className="fill-ridge"
        d="M0 120 95 62l110 52L322 18l84 60 92-44 128 96 96-40 118 46 142-74 92 58 206-66v184H0z"
      />
      <path
        className="fill-none stroke-dawn"
        strokeWidth="5"
        strokeLinejoin="round"
        strokeLinecap="round"
        d="m322 18 84 60 92-44 74 55M982 62l62 39"
      />
      <path className="fill-dusk" d="M0 190 176 136l150 48 128-66 176 74 164-46 190 58 150-62 146 50v58H0z" />
      <path className="fill-night" d="m0 222 262-34 250 40 268-38 270 40 230-30v40H0z" />
    </svg>
  )
}
