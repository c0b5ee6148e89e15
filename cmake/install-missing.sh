# Sourced by run and check: the Debian packages each needs, and how they come onto the machine.
PACKAGES_BUILD="g++ cmake ninja-build qt6-base-dev qt6-svg-dev libeigen3-dev nlohmann-json3-dev libvalijson-dev libcli11-dev libcsv-dev coinor-libcbc-dev libsundials-dev libqcustomplot-dev zlib1g-dev pkgconf libfmt-dev libexpected-dev libgl-dev"
PACKAGES_TEST="libgtest-dev libgmock-dev libbenchmark-dev ngspice units clang-format clang-tidy desktop-file-utils"

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
    DEBIAN_FRONTEND=noninteractive $root apt-get install -y --no-install-recommends $missing
}
