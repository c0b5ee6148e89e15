#!/bin/sh
# ./run and ./check on a Debian 12 that holds nothing but a shell: made with debootstrap in a folder, entered by
# chroot. As root, without and with a display, then as a plain user where sudo exists. Needs root itself.
# YR_FRESH_CACHE=1 lends it this system's compiler cache: minutes where it takes most of an hour. A header that no
# installed package brings fails as without it, since the cache answers only for files that are there.
set -e
top="$(cd "$(dirname "$0")/.." && pwd)"
fresh="${YR_FRESH:-${TMPDIR:-/tmp}/your-rail-fresh}"

if [ "$(id -u)" != 0 ]; then
    echo "A fresh system can only be made and entered by root: sudo ./check --fresh"
    exit 2
fi
. "$top/cmake/install-missing.sh"
install_missing debootstrap
mirror="$(cat /etc/apt/sources.list /etc/apt/sources.list.d/* 2>/dev/null | grep -E '^(URIs:|deb )' | grep -oE 'https?://[^ ]+' | grep -v security | head -n 1)"

leave() {
    for m in ccache dev/pts dev proc sys; do umount -l "$fresh/$m" 2>/dev/null || true; done
}
trap leave EXIT
leave
if [ -z "$YR_FRESH_AGAIN" ]; then # set: the system of the last time, for who mends what failed in it
    rm -rf "$fresh"
    echo "== a new Debian 12 in $fresh"
    debootstrap --variant=minbase bookworm "$fresh" "${mirror:-http://deb.debian.org/debian}" >"$fresh.log" 2>&1 || {
        echo "debootstrap may not work here; see $fresh.log"
        exit 2
    }
fi
for conf in /etc/apt/apt.conf.d/*; do # how packages are reached from here, and nothing else
    if grep -q '^ *Acquire' "$conf"; then cp "$conf" "$fresh/etc/apt/apt.conf.d/"; fi
done
cp /etc/resolv.conf "$fresh/etc/resolv.conf"
mount -t proc proc "$fresh/proc"
mount --rbind /dev "$fresh/dev" 2>/dev/null || mount -o bind /dev "$fresh/dev"

lent=""
if [ -n "$YR_FRESH_CACHE" ] && command -v ccache >/dev/null; then
    mkdir -p "$fresh/ccache"
    mount -o bind "$(ccache -k cache_dir)" "$fresh/ccache"
    lent="CCACHE_DIR=/ccache CCACHE_TEMPDIR=/tmp CCACHE_READONLY=1"
    echo "   with this system's compiler cache"
fi

take_tree() { # the tracked files as they stand, changed or not
    find "$fresh/$1" -mindepth 1 -maxdepth 1 ! -name build -exec rm -rf {} + 2>/dev/null || true
    mkdir -p "$fresh/$1"
    (cd "$top" && git ls-files -co --exclude-standard -z | xargs -0 tar cf - 2>/dev/null) | tar xmf - -C "$fresh/$1" # -m: dated now, so that what an earlier try built is stale
}
inside() {
    chroot "$fresh" env -i HOME=/root TERM=dumb LANG=C.UTF-8 PATH=/usr/sbin:/usr/bin:/sbin:/bin DEBIAN_FRONTEND=noninteractive $lent "$@"
}
if [ -n "$lent" ]; then inside apt-get update -qq && inside apt-get install -y -qq --no-install-recommends ccache >/dev/null; fi
# The window comes up and stays: ended by us after 20 s is good, by itself is not.
window_stays='
    Xvfb :7 -screen 0 1280x800x24 >/dev/null 2>&1 & x=$!
    sleep 2
    set +e
    DISPLAY=:7 timeout 20 ./run >/tmp/window.log 2>&1
    code=$?
    kill $x
    [ $code = 124 ] || { echo "the window ended with $code:"; cat /tmp/window.log; exit 1; }'

take_tree src
echo "== ./run without a display, as root"
inside sh -c 'cd /src && ./run'
ls "$fresh/src/build/views" | grep -q rail-idling.png
inside sh -c 'apt-get clean; du -sh --exclude=/proc --exclude=/sys --exclude=/dev --exclude=/ccache --exclude=/src / 2>/dev/null' |
    sed 's/^/   the system with what building needs: /'
echo "== ./run with a display"
inside apt-get install -y -qq --no-install-recommends xvfb >/dev/null
inside sh -c "cd /src; $window_stays"
echo "== ./check"
inside sh -c 'cd /src && ./check'
if inside sh -c 'apt-get install -y --no-install-recommends sudo >/dev/null 2>&1'; then
    echo "== ./run as a plain user"
    inside sh -c 'useradd -m -d /srv/installer installer && echo "installer ALL=(ALL) NOPASSWD:ALL" >/etc/sudoers.d/installer'
    take_tree srv/installer/src
    inside chown -R installer /srv/installer/src
    inside su installer -c 'cd ~/src && ./run'
fi
echo "== all good on a fresh Debian 12"
