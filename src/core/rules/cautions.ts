/** Warnings of the trade, shown where they apply. They replace neither local rules nor qualified people. */
export const CAUTIONS = {
  phantom: {
    title: 'Phantom power',
    text: 'It can damage some ribbon and vintage microphones, and is a shock to batteries inside some others. Check what is plugged in before switching it on.',
  },
  hearing: {
    title: 'Hearing',
    text: 'Full gain, clipping, sweeps and plosives can be dangerously loud in headphones. Take them off or turn down first, then up to where you need it. Long sessions count too: occupational practice is 85 dBA over 8 hours, half the time for every 3 dB more. This is not medical advice.',
  },
  'high-voltage': {
    title: 'High voltage',
    text: 'Valve microphones and their supplies, guitar amplifiers and mains gear hold lethal voltage even unplugged. Do not open them; leave it to a qualified technician and follow local electrical rules.',
  },
  cells: {
    title: 'Cells',
    text: 'Lithium and 9 V cells leak, swell and burn. Remove them for storage; stop using one that is warm or swollen.',
  },
  field: {
    title: 'In the field',
    text: 'Mind traffic and weather, and ask people before you record them: follow local law.',
  },
  loads: {
    title: 'Loads',
    text: 'Heavy stands and booms tip: counterweight them. Gear with heat-sinks gets hot.',
  },
} as const;
export type CautionId = keyof typeof CAUTIONS;
export const CAUTION_IDS = Object.keys(CAUTIONS) as readonly CautionId[];
