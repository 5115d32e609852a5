#!/usr/bin/env bash
# Takes the letters of another writing from the front end's packages: what the
# browser is given (ui/src/fonts.css), and for core/letters the same fonts with
# what shaping and painting need. Run it after a font's version has changed; needs
# Debian's packages woff2 and fonts-droid-fallback. core/letters/fonts/SHA256SUMS says
# of which files they were made.
set -euo pipefail
cd "$(dirname "$0")/.."
from=ui/node_modules/@fontsource-variable
to=core/letters/fonts
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
rm -f $to/*.ttf $to/display/*.ttf $to/own/*.ttf
mkdir -p $to/display $to/own
: >"$work/sums"
cat >ui/src/fonts.css <<'C'
/* Made by scripts/fonts.sh: one family for every writing that the main font does not have. */
C
n=0
take() { # package, file without ending, folder if another
  n=$((n + 1))
  cp "$from/$1/files/$2.woff2" "$work/"
  woff2_decompress "$work/$2.woff2" >/dev/null
  go run ./scripts/fonts "$work/$2.ttf" "$to/${3:-}$n-${2%-wght-normal}.ttf"
  (cd ui && sha256sum "${from#ui/}/$1/files/$2.woff2") >>"$work/sums"
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
n=0
for letters in latin latin-ext vietnamese; do
  take bricolage-grotesque "bricolage-grotesque-$letters-wght-normal" display/
done
# What every device shows in a font of its own: ideographs, and pictures of faces and things.
from=ui/node_modules/@fontsource
n=10
for part in 0 1 2 3 4 5 6 7 8 9 10; do
  [ -f "$from/noto-emoji/files/noto-emoji-$part-400-normal.woff2" ] && take noto-emoji "noto-emoji-$part-400-normal" own/
done
go run ./scripts/fonts /usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf $to/own/99-droid-sans-fallback.ttf
cp "$work/sums" $to/SHA256SUMS
ui/node_modules/.bin/oxfmt ui/src/fonts.css
