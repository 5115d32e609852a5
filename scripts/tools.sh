#!/usr/bin/env bash
# Installs programs that the house needs from Debian's packages, if they are missing:
# scripts/tools.sh [postgresql] [chromium-headless-shell] [poppler-utils] [fonts-droid-fallback] [fonts-noto-color-emoji]
set -euo pipefail
is_there() {
  case $1 in
  postgresql) ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || command -v initdb >/dev/null ;;
  poppler-utils) command -v pdftoppm >/dev/null ;; # for tests alone
  # Letters that every device brings by itself, for tests alone.
  fonts-droid-fallback) [ -e /usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf ] ;;
  fonts-noto-color-emoji) [ -e /usr/share/fonts/truetype/noto/NotoColorEmoji.ttf ] ;;
  chromium-headless-shell) [ -x "${CHROMIUM:-/usr/bin/chromium-headless-shell}" ] ;;
  esac
}
missing=()
for name in "$@"; do is_there "$name" || missing+=("$name"); done
[ ${#missing[@]} = 0 ] && exit 0
as_root=
if [ "$(id -u)" != 0 ]; then
  as_root=sudo
  if ! sudo -n true 2>/dev/null && [ ! -t 0 ]; then
    echo "missing: ${missing[*]}. Install as root: apt-get install ${missing[*]}" >&2
    exit 1
  fi
fi
echo "installing from Debian's packages: ${missing[*]}" >&2
$as_root apt-get update -qq
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
