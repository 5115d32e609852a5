#!/usr/bin/env bash
# Writes the lists of words that a class should not read unasked anew, from the
# npm package naughty-words (CC BY 4.0), one file for each language.
set -euo pipefail
cd "$(dirname "$0")/../core/words/lists"
into=$(mktemp -d)
trap 'rm -rf "$into"' EXIT
npm pack --silent --pack-destination "$into" naughty-words@1.2.0 >/dev/null
tar -xzf "$into"/naughty-words-1.2.0.tgz -C "$into"
for language in ar cs da de en es fi fr hu it nl no pl pt ru sv tr; do
  node -e 'process.stdout.write(JSON.parse(require("fs").readFileSync(process.argv[1])).sort().join("\n") + "\n")' \
    "$into/package/$language.json" >"$language.txt"
done
cp "$into/package/LICENSE" LICENSE
