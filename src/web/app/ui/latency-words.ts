import { LATENCY_OFF_MS } from '#core/gear/interface/latency-figures';

/** Beside a cell of a table of latencies that does not go with the others. */
export const ODD_LATENCY = `More than ${LATENCY_OFF_MS} ms off what the other buffers at this rate show`;
