/** Mean over channels of arrays of one length, number by number; one channel is handed back as it is. */
export function meanOf(channels: readonly Float64Array[]): Float64Array {
  return channels.length === 1
    ? channels[0]
    : channels[0].map((_, i) => channels.reduce((s, values) => s + values[i], 0) / channels.length);
}

/** Largest over channels of arrays of one length, number by number; one channel is handed back as it is. */
export function largestOf(channels: readonly Float64Array[]): Float64Array {
  return channels.length === 1 ? channels[0] : channels[0].map((_, i) => Math.max(...channels.map((v) => v[i])));
}
