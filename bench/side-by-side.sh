#!/bin/sh
# The voices' two kernels in Java and in C, one after the other in the same run. Needs gcc; to be run from anywhere.
set -e
here=$(cd "$(dirname "$0")" && pwd)
gcc -O3 -march=native -o "$here/target/kernels" "$here/native/kernels.c" -lm
exec java -cp "$here/target/*:$here/../desktop/target/lib/*" nightreed.bench.SideBySide "$here/target/kernels" "$@"
