#!/usr/bin/env bash
# Installs a program that the house needs from Debian's packages, if it is
# missing: scripts/tools.sh postgresql|chromium-headless-shell|poppler-utils|fonts-droid-fallback|fonts-noto-color-emoji
set -euo pipefail
case $1 in
postgresql) ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || command -v initdb >/dev/null && exit 0 ;;
poppler-utils) command -v pdftoppm >/dev/null && exit 0 ;; # for tests alone
# Letters that every device brings by itself, for tests alone.
fonts-droid-fallback) [ -e /usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf ] && exit 0 ;;
fonts-noto-color-emoji) [ -e /usr/share/fonts/truetype/noto/NotoColorEmoji.ttf ] && exit 0 ;;
chromium-headless-shell) [ -x "${CHROMIUM:-/usr/bin/chromium-headless-shell}" ] && exit 0 ;;
esac
as_root=
if [ "$(id -u)" != 0 ]; then
  as_root=sudo
  if ! sudo -n true 2>/dev/null && [ ! -t 0 ]; then
    echo "$1 is missing. Install it as root: apt-get install $1" >&2
    exit 1
  fi
fi
echo "installing $1 from Debian's packages" >&2
$as_root apt-get update -qq
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq --no-install-recommends "$1" >/dev/null
