#!/usr/bin/env bash
# Installs what the demo and the tests need: npm packages, and by apt (as root on Debian) the browser, LibreOffice and PDF tools.
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/aptInstall.sh

install_packages() {
  # A finished install leaves this file; it is older than the lock file when packages have changed.
  if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.doodla-installed ]; then
    npm ci
    touch node_modules/.doodla-installed
  fi
}
# Compiling native packages takes a while, in which apt can do its part.
install_packages &
packages=$!

missing=()
command -v chromium >/dev/null || missing+=(chromium)
command -v pdftotext >/dev/null || missing+=(poppler-utils)
[ -d /usr/share/poppler ] || missing+=(poppler-data)
command -v qpdf >/dev/null || missing+=(qpdf)
command -v ffprobe >/dev/null || missing+=(ffmpeg)
[ -d /usr/lib/postgresql ] || missing+=(postgresql)
command -v redis-server >/dev/null || missing+=(redis-server)
command -v soffice >/dev/null || missing+=(libreoffice-impress-nogui libreoffice-writer-nogui)
# Fonts that documents ask for by other names, with letters just as wide, and those of the scripts of the world.
# Documentation that nobody here wrote, on which the companion is tried.
[ -d /usr/share/doc/debian-policy/policy.html ] || missing+=(debian-policy)
[ -d /usr/share/doc/libxom-java/apidocs ] || missing+=(libxom-java-doc)
has_font() { [ -n "$(fc-list "$1" 2>/dev/null)" ]; }
has_font 'Liberation Sans' || missing+=(fonts-liberation)
has_font 'Carlito' || missing+=(fonts-crosextra-carlito fonts-crosextra-caladea)
has_font ':lang=hi' || missing+=(fonts-noto-core)
has_font ':lang=ja' || missing+=(fonts-noto-cjk)
apt_install 'The program runs without; the tests need them' "${missing[@]}"
wait "$packages"
