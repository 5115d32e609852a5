#!/usr/bin/env bash
# Measures a running server under the load of whole classes, and beside it, in
# the same run, a bare relay. Prints a table for docs/performance.md.
# Usage: scripts/bench.sh [seconds]
set -euo pipefail
cd "$(dirname "$0")/.."
seconds=${1:-60}
data=$(mktemp -d /var/tmp/alpenglow-bench-XXXXXX)
chmod 755 "$data"
server=http://127.0.0.1:8087
relay=http://127.0.0.1:8088

ALPENGLOW_DATA=$data ALPENGLOW_ADDR=127.0.0.1:8087 bin/alpenglow demo >"$data/said" &
demo=$!
bin/alpenglow relay -addr 127.0.0.1:8088 &
other=$!
trap 'kill -INT $demo $other 2>/dev/null; wait $demo $other 2>/dev/null || true; rm -rf "$data"' EXIT
until curl -sf "$server/readyz" >/dev/null; do sleep 0.2; done
database=$(sed -n 's/.*database *\(postgres:[^ ]*\) .*/\1/p' "$data/said")
pid=$(sed -n 's/.*(process \([0-9]*\)).*/\1/p' "$data/said")

echo "$(nproc) cores, $(awk '/MemTotal/ {printf "%.0f GiB", $2/1048576}' /proc/meminfo), $(go env GOVERSION), $(date +%F), $seconds s a row"
echo
bin/alpenglow load -idle -url $server -classes 100 -students 30
header=-header
for classes in "10 30" "30 30" "100 30" "1 300"; do
  set -- $classes
  bin/alpenglow load $header -url $server -classes "$1" -students "$2" -seconds "$seconds" -database "$database" -database-pid "$pid" || failed=1
  header=
  sleep 3
  bin/alpenglow load -relay -url $relay -classes "$1" -students "$2" -seconds "$seconds" || failed=1
  sleep 3
done
exit ${failed:-0}
