#!/bin/sh
# Runs a command on the present display, or on a virtual one where there is none.
if [ -n "${DISPLAY:-}${WAYLAND_DISPLAY:-}" ] || [ -n "${QT_QPA_PLATFORM:-}" ]; then
    exec "$@"
fi
echo "No display here: Keel Room runs on a virtual screen of 1280x800."
exec xvfb-run -a -s "-screen 0 1280x800x24" "$@"
