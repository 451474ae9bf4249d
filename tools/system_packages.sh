#!/bin/sh
# Installs Debian packages that are missing. Each argument is package:what, where `what` is a command or a library.
set -eu
missing=
for pair in "$@"; do
    package=${pair%%:*} what=${pair#*:}
    case $what in
        *.so*) /sbin/ldconfig -p 2>/dev/null | grep -q "$what" || missing="$missing $package" ;;
        *) command -v "$what" >/dev/null 2>&1 || missing="$missing $package" ;;
    esac
done
[ -n "$missing" ] || exit 0
if ! command -v apt-get >/dev/null 2>&1; then
    echo "Please install with your system's package manager:$missing" >&2
    exit 1
fi
root=
[ "$(id -u)" = 0 ] || root=sudo
echo "installing$missing"
# shellcheck disable=SC2086
$root apt-get update -qq && DEBIAN_FRONTEND=noninteractive $root apt-get install -y -qq --no-install-recommends $missing >/dev/null
