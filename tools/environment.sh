#!/bin/sh
# Makes a virtual environment with exactly what a lock file names, and Pleat itself in it, from the source tree.
set -eu
python=$1 venv=$2 lock=$3

[ -x "$venv/bin/python" ] || "$python" -m venv "$venv"
"$venv/bin/python" -m pip install --quiet --disable-pip-version-check --require-hashes --no-deps -r "$lock"
# Pleat runs from the source tree: a path file and a starter, with nothing to build or fetch.
site=$("$venv/bin/python" -c 'import sysconfig; print(sysconfig.get_path("purelib"))')
printf '%s\n' "$PWD/src" > "$site/pleat-source.pth"
printf '#!/bin/sh\nexec "%s/bin/python" -m pleat "$@"\n' "$PWD/$venv" > "$venv/bin/pleat"
chmod +x "$venv/bin/pleat"
# Compiled once here, so that every start is quick even where Python is told not to keep compiled files.
"$venv/bin/python" -m compileall -q src
