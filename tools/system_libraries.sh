#!/bin/sh
# The libraries Qt's X11 plugin loads at run time, and the virtual display for machines without a screen.
# Installed when root on a Debian machine; otherwise the exact line is printed.
set -eu
packages="libegl1 libgl1 libdbus-1-3 libfontconfig1 libxkbcommon-x11-0 libxcb-cursor0 libxcb-icccm4 libxcb-image0 libxcb-keysyms1 libxcb-randr0 libxcb-render-util0 libxcb-shape0 libxcb-xinerama0 python3-venv xvfb"
command -v dpkg-query >/dev/null 2>&1 || { echo "Not a Debian system: Qt 6 needs the equivalents of: $packages"; exit 0; }
missing=""
for package in $packages; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q "install ok installed" || missing="$missing $package"
done
# Any working Python will do: the distribution's venv module matters only where python3 is its own.
python3 -c "import venv, ensurepip" 2>/dev/null && missing=$(echo "$missing" | sed 's/ python3-venv//')
# What runs in thousands is compiled: any C compiler and this Python's headers will do.
command -v cc >/dev/null 2>&1 || missing="$missing gcc libc6-dev"
python3 -c "import os, sysconfig; assert os.path.exists(os.path.join(sysconfig.get_path('include'), 'Python.h'))" 2>/dev/null || missing="$missing python3-dev"
# What a test walks the window with as a screen reader does; without it that test is left out, and says so.
reader=""
for package in python3-pyatspi at-spi2-core dbus; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q "install ok installed" || reader="$reader $package"
done
if [ -n "$reader" ] && [ "$(id -u)" = 0 ]; then
    echo "Installing what a screen reader's test needs:$reader"
    timeout 90 sh -c "apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends$reader" >/dev/null 2>&1 \
        || echo "They could not be had; the test with a screen reader is left out."
fi
[ -n "$missing" ] || exit 0
if [ "$(id -u)" = 0 ]; then
    echo "Installing system libraries:$missing"
    apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq $missing >/dev/null
else
    echo "Keel Room needs these system libraries. Install them with:"
    echo "    sudo apt-get install$missing"
fi
