# Read by the scripts that set up: installs Debian packages as root, and says what is missing otherwise.

# apt_install WHAT-IT-MEANS PACKAGE ...
apt_install() {
  local without=$1
  shift
  [ "$#" -gt 0 ] || return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
  else
    echo "Not installed: $*. $without: apt-get install $*" >&2
  fi
}
