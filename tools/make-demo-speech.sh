#!/usr/bin/env bash
# Makes the dry speech that the demo's rig plays, once, with Debian's espeak-ng, sox and flac. The results are shipped;
# nobody needs to run this unless the passage changes. Usage: tools/make-demo-speech.sh
set -euo pipefail
cd "$(dirname "$0")/.."
mkdir -p demo/speech
text=$(node -p "JSON.parse(require('fs').readFileSync('src/server/seed/protocol-desk-voice-1.json','utf8')).text")
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
make_voice() { # name, espeak voice, words per minute, pitch
  espeak-ng -v "$2" -s "$3" -p "$4" -g 3 -w "$work/$1.wav" "$text"
  # 48 kHz, silence trimmed at both ends, peaks at -3 dBFS; 16 bits are enough for a dry source.
  sox "$work/$1.wav" -r 48000 -b 16 -c 1 "$work/$1-48.wav" silence 1 0.05 0.1% reverse silence 1 0.05 0.1% reverse gain -n -3
  flac --silent --best --force -o "demo/speech/$1.flac" "$work/$1-48.wav"
}
make_voice low en-gb 165 30
make_voice high en-gb+f3 170 55
make_voice north en-gb-scotland+m3 160 42
