#!/usr/bin/env bash
# Installs, by apt as root on Debian, the other browsers that `npm run test:browsers` drives.
set -euo pipefail

missing=()
command -v firefox-esr >/dev/null || missing+=(firefox-esr)
command -v WebKitWebDriver >/dev/null || missing+=(webkit2gtk-driver)
command -v Xvfb >/dev/null || missing+=(xvfb)
if [ "${#missing[@]}" -gt 0 ]; then
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
  else
    echo "Not installed: ${missing[*]}. Browsers that are missing are left out: apt-get install ${missing[*]}" >&2
  fi
fi
