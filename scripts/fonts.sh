#!/usr/bin/env bash
# Takes the letters of another writing from the front end's packages: what the
# browser is given (ui/src/fonts.css), and for core/letters the same fonts
# without outlines. Run it after a font's version has changed; needs Debian's
# package woff2. core/letters/fonts/SHA256SUMS says of which files they were made.
set -euo pipefail
cd "$(dirname "$0")/.."
from=ui/node_modules/@fontsource-variable
to=core/letters/fonts
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
rm -f $to/*.ttf
: >"$work/sums"
cat >ui/src/fonts.css <<'C'
/* Made by scripts/fonts.sh: one family for every writing that the main font does not have. */
C
n=0
take() { # package, file without ending
  n=$((n + 1))
  cp "$from/$1/files/$2.woff2" "$work/"
  woff2_decompress "$work/$2.woff2" >/dev/null
  go run ./scripts/fonts "$work/$2.ttf" "$to/$n-${2%-wght-normal}.ttf"
  (cd ui && sha256sum "node_modules/@fontsource-variable/$1/files/$2.woff2") >>"$work/sums"
}
style() { # package, file without ending
  local range
  range=$(grep -A2 "files/$2.woff2" "$from/$1/index.css" | sed -n 's/.*unicode-range: *\(.*\);.*/\1/p')
  cat >>ui/src/fonts.css <<C
@font-face {
  font-family: 'Noto Sans Writings';
  font-display: swap;
  font-weight: 100 900;
  src: url('@fontsource-variable/$1/files/$2.woff2') format('woff2-variations');
  unicode-range: ${range//,/, };
}
C
}
take atkinson-hyperlegible-next atkinson-hyperlegible-next-latin-wght-normal
take atkinson-hyperlegible-next atkinson-hyperlegible-next-latin-ext-wght-normal
for writing in vietnamese cyrillic greek devanagari; do
  take noto-sans "noto-sans-$writing-wght-normal"
  style noto-sans "noto-sans-$writing-wght-normal"
done
for writing in arabic hebrew; do
  take noto-sans-$writing "noto-sans-$writing-$writing-wght-normal"
  style noto-sans-$writing "noto-sans-$writing-$writing-wght-normal"
done
cp "$work/sums" $to/SHA256SUMS
(cd ui && npx prettier --log-level warn --write src/fonts.css)
