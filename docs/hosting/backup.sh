#!/usr/bin/env bash
# backup.sh FOLDER KEEP: a backup into FOLDER, read again and counted; the newest KEEP stay.
set -euo pipefail
folder=$1 keep=$2
file="$folder/ydrometer-$(date +%Y%m%d-%H%M%S).backup"
cd "$(dirname "$0")/../.."
./ydro backup "$file"
./ydro check-backup "$file"
# Only once a new one is known to be whole do old ones go.
find "$folder" -name 'ydrometer-*.backup' -printf '%f\n' | sort -r | tail -n "+$((keep + 1))" |
  while read -r old; do rm -- "$folder/$old"; done
