#!/usr/bin/env bash
# How fast live files are, beside nginx with the same bytes: one thread asks over 16 connections, each for some seconds.
# Called by ./calm bench live; CALM_RUN names a folder of its own.
set -euo pipefail
cd "$(dirname "$0")/.."
seconds=${1:-8}
run=$CALM_RUN
mkdir -p "$run/www"
port=$(sed -n 's/.*:\([0-9]*\)\/$/\1/p' "$run/address")
ours=http://127.0.0.1:$port
page=/at/sallowmere-ferries/
sheet=$(curl -fs "$ours$page" | grep -o '/at/sallowmere-ferries/files/[0-9a-f]*/css/towpath.css' | head -1)
picture=/at/sallowmere-ferries/img/river-dusk.jpg
curl -fs "$ours$page" -o "$run/www/page.html"
curl -fs "$ours$sheet" -o "$run/www/sheet.css"
curl -fs "$ours$picture" -o "$run/www/picture.jpg"
for free in $(seq 18080 18280); do (exec 3<>"/dev/tcp/127.0.0.1/$free") 2>/dev/null || break; done
cat >"$run/nginx.conf" <<CONF
worker_processes 1;
daemon off;
pid $run/nginx.pid;
error_log $run/nginx.log;
events { worker_connections 64; }
http { access_log off; sendfile on; keepalive_requests 1000000; include /etc/nginx/mime.types; root $run/www; server { listen 127.0.0.1:$free; } client_body_temp_path $run/t1; proxy_temp_path $run/t2; fastcgi_temp_path $run/t3; uwsgi_temp_path $run/t4; scgi_temp_path $run/t5; }
CONF
nginx -c "$run/nginx.conf" &
nginx=$!
trap 'kill $nginx 2>/dev/null || true' EXIT
for _ in $(seq 1 50); do curl -fs "http://127.0.0.1:$free/sheet.css" -o /dev/null && break; sleep 0.1; done
ask() { wrk -t1 -c16 -d"$2"s --latency "$1" | awk '/Requests\/sec/ {r=$2} /99%/ {p=$2} END {print r, p}'; }
# Java compiles what is asked for often.
for address in "$sheet" "$page" "$picture"; do ask "$ours$address" 6 >/dev/null; done
printf '%-12s %12s %10s %12s %10s %8s\n' what ours/s p99 nginx/s p99 ratio
for what in "stylesheet $sheet sheet.css" "page $page page.html" "picture $picture picture.jpg"; do
  read -r name address file <<<"$what"
  read -r ours_rate ours_p99 <<<"$(ask "$ours$address" "$seconds")"
  read -r nginx_rate nginx_p99 <<<"$(ask "http://127.0.0.1:$free/$file" "$seconds")"
  printf '%-12s %12s %10s %12s %10s %8s\n' "$name" "$ours_rate" "$ours_p99" "$nginx_rate" "$nginx_p99" "$(awk -v a="$ours_rate" -v b="$nginx_rate" 'BEGIN {printf "%.3f", a / b}')"
done
