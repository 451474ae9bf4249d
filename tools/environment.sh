#!/bin/sh
# Makes a virtual environment with the given requirements and Pleat itself in it.
# uv does it in seconds; where it cannot be had or fails, pip does the same more slowly.
set -eu
python=$1 venv=$2 requirements=$3

[ -x "$venv/bin/python" ] || "$python" -m venv "$venv"
if { [ -x "$venv/bin/uv" ] || "$venv/bin/python" -m pip install --quiet --disable-pip-version-check uv; } 2>/dev/null &&
   "$venv/bin/uv" pip install --quiet --compile-bytecode --python "$venv/bin/python" -r "$requirements" -c requirements/pins.txt 2>/dev/null; then
    :
else
    "$venv/bin/python" -m pip install --quiet --disable-pip-version-check -r "$requirements" -c requirements/pins.txt
fi
# Pleat runs from the source tree: a path file and a starter, with nothing to build or fetch.
site=$("$venv/bin/python" -c 'import sysconfig; print(sysconfig.get_path("purelib"))')
printf '%s\n' "$PWD/src" > "$site/pleat-source.pth"
printf '#!/bin/sh\nexec "%s/bin/python" -m pleat "$@"\n' "$PWD/$venv" > "$venv/bin/pleat"
chmod +x "$venv/bin/pleat"
# Compiled once here, so that every start is quick even where Python is told not to keep compiled files.
"$venv/bin/python" -m compileall -q src
