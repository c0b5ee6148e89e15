# Sourced by run and check: the Debian packages each needs, and how they come onto the machine.
# What builds the programs never asks for what only tests need.
PACKAGES_BUILD="g++ cmake ninja-build pkgconf qt6-base-dev qt6-svg-dev libgl-dev libqcustomplot-dev libeigen3-dev libboost1.74-dev nlohmann-json3-dev libvalijson-dev libcli11-dev libcsv-dev libfmt-dev libexpected-dev libglpk-dev coinor-cbc zlib1g-dev libxlsxwriter-dev libqrencode-dev libmd-dev libpcre2-dev graphviz"
PACKAGES_TEST="libgtest-dev libgmock-dev libbenchmark-dev ngspice units clang-format desktop-file-utils gettext locales poppler-utils qpdf zbar-tools libxml2-utils"
PACKAGES_ALL="libsuitesparse-dev clang-tidy clang-14 libclang-rt-14-dev python3-scipy"

install_missing() {
    missing=""
    for package in "$@"; do
        dpkg-query -W -f '${Status}' "$package" 2>/dev/null | grep -q "install ok installed" || missing="$missing $package"
    done
    [ -z "$missing" ] && return 0
    echo "Installing what is missing:$missing"
    root=""
    if [ "$(id -u)" != 0 ]; then
        command -v sudo >/dev/null || { echo "These packages are missing and there is no sudo:$missing"; exit 1; }
        root="sudo"
    fi
    $root apt-get update -qq
    DEBIAN_FRONTEND=noninteractive $root apt-get install -y -qq --no-install-recommends $missing >/dev/null
}

# A compiler cache is used where it is installed; nothing asks for it. What it knows of one clone it knows of all.
use_ccache() {
    command -v ccache >/dev/null || return 0
    CCACHE_SLOPPINESS=pch_defines,time_macros
    CCACHE_BASEDIR=$PWD
    CCACHE_NOHASHDIR=1
    CMAKE_CXX_COMPILER_LAUNCHER=ccache
    export CCACHE_SLOPPINESS CCACHE_BASEDIR CCACHE_NOHASHDIR CMAKE_CXX_COMPILER_LAUNCHER
}
