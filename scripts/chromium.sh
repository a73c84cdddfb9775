#!/bin/sh
# Installs Debian's chromium when it is missing; as root, through sudo, or by naming the one command.
set -eu
command -v chromium >/dev/null 2>&1 && exit 0
get="apt-get install -y --no-install-recommends chromium"
if [ "$(id -u)" = 0 ]; then run=""; elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then run="sudo"; else
  echo "The browser tests need Chromium. Run: sudo $get" >&2
  exit 1
fi
$run apt-get update -qq
DEBIAN_FRONTEND=noninteractive $run $get >/dev/null
