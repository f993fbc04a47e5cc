# The Debian 12 packages Skivet is built, tested and shown with. Sourced by run-demo and run-tests.
skivet_packages="
  g++ cmake ninja-build ccache pkg-config git
  qt6-base-dev qt6-svg-dev qt6-qpa-plugins qt6-l10n-tools libgl-dev libegl-dev
  libtbb-dev libexpected-dev libutfcpp-dev libimath-dev libfmt-dev nlohmann-json3-dev libtomlplusplus-dev libcli11-dev
  libssl-dev libdeflate-dev zlib1g-dev libspng-dev libjpeg62-turbo-dev libtiff-dev libwebp-dev libopenexr-dev liblcms2-dev libhwy-dev libastcenc-dev libzstd-dev liblz4-dev liblzma-dev libbz2-dev liblzo2-dev libsnappy-dev libbrotli-dev libarchive-dev libxxhash-dev libsqlite3-dev libassimp-dev libembree-dev libzip-dev libsquish-dev
  xvfb xauth bubblewrap util-linux"
# What a desktop needs besides: windows under Wayland, and the desktop's program for a file.
skivet_desktop_packages="qt6-wayland xdg-utils qt6-translations-l10n"
# Where no npm is there yet; for one test.
skivet_node_packages="nodejs npm"
# Outside references of the tests.
skivet_test_packages="libgtest-dev libgmock-dev astcenc libgl1-mesa-dri libegl1 libegl-mesa0 imagemagick ffmpeg libarchive-tools unzip zip python3 lz4 zstd xz-utils bzip2 gzip cpio xorriso openssl xxhash parallel"

# install_packages PACKAGE... : installs what is missing; sudo only when not root.
install_packages() {
  local missing=() name
  for name in "$@"; do
    dpkg-query -W -f '${Status}' "$name" 2>/dev/null | grep -q 'ok installed' || missing+=("$name")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  echo "Installing: ${missing[*]}"
  local as_root=""
  [ "$(id -u)" -eq 0 ] || as_root=sudo
  $as_root apt-get update -qq
  $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

# ccache may use precompiled headers, which it does not by itself, and what another clone or language of the terminal compiled.
export CCACHE_SLOPPINESS=pch_defines,time_macros,locale CCACHE_NOHASHDIR=1
CCACHE_BASEDIR="$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)"
export CCACHE_BASEDIR
skivet_fuzz_packages="clang libclang-rt-14-dev"
# For packaging/make-deb.
skivet_packaging_packages="dpkg-dev fakeroot lintian desktop-file-utils appstream"
# For run-checks.
skivet_check_packages="clang-format clang-tidy"
