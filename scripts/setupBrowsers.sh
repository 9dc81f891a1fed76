#!/usr/bin/env bash
# Installs, by apt as root on Debian, the other browsers that `npm run test:browsers` drives.
set -euo pipefail
. "$(dirname "$0")/aptInstall.sh"

missing=()
command -v firefox-esr >/dev/null || missing+=(firefox-esr)
command -v WebKitWebDriver >/dev/null || missing+=(webkit2gtk-driver)
command -v Xvfb >/dev/null || missing+=(xvfb)
apt_install 'Browsers that are missing are left out' "${missing[@]}"
