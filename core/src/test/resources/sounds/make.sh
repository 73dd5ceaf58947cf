#!/usr/bin/env bash
# Makes the sound files of this folder anew, and beside each what sox itself reads from it (32-bit float, little-endian).
# Needs: apt-get install sox libsox-fmt-all
set -euo pipefail
cd "$(dirname "$0")"
rm -f ./*.wav ./*.aif* ./*.flac ./*.ogg ./*.mp3 ./*.f32
base() { sox -R -n -r "$1" -c "$2" -b 32 -e signed -t wav - synth "$3" sine 440 pinknoise vol 0.5; }
made() { sox "$1" -t f32 "${1}.f32"; }
base 44100 2 0.03 > base.tmp
for b in 8 16 24 32; do sox -D base.tmp -b $b "pcm$b.wav"; done
sox -D base.tmp -b 8 -e unsigned "unsigned8.wav"
sox base.tmp -b 32 -e float float32.wav
sox base.tmp -b 64 -e float float64.wav
sox base.tmp -e mu-law mulaw.wav
sox base.tmp -e a-law alaw.wav
sox -D base.tmp -b 16 -B big-endian.wav
sox -D base.tmp -b 24 -t wavpcm plain24.wav
for b in 8 16 24 32; do sox -D base.tmp -b $b "pcm$b.aiff"; done
sox -D base.tmp -b 16 pcm16.aifc
sox base.tmp -e mu-law -t aifc mulaw.aifc 2>/dev/null || rm -f mulaw.aifc
for b in 16 24; do sox -D base.tmp -b $b "pcm$b.flac"; done
base 8000 1 0.05 > mono.tmp && sox -D mono.tmp -b 16 low-rate.wav
base 192000 1 0.01 > high.tmp && sox -D high.tmp -b 24 high-rate.wav
base 22050 6 0.02 > six.tmp && sox -D six.tmp -b 16 six-channels.wav && sox -D six.tmp -b 16 six-channels.flac
base 44100 2 0.2 > lossy.tmp && sox lossy.tmp -C 8 stereo.ogg && sox lossy.tmp -C 192 stereo.mp3
base 22050 1 0.2 > lossy.tmp && sox lossy.tmp -C 3 mono.ogg && sox lossy.tmp -C 64 mono.mp3
for f in *.wav *.aiff *.aifc *.flac *.ogg *.mp3; do made "$f"; done
rm -f ./*.tmp
