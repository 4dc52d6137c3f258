import type { House, ReviewDocument } from '#contracts/review';

/**
 * How a desk begins: uses with what they ask for, until a person has put in their own. The limits are common practice,
 * without a source.
 */
export const SHIPPED_HOUSE: House = {
  version: 0,
  desk: '',
  address: '',
  clipLicence: '',
  uses: [
    {
      name: 'Solo desk in an untreated room',
      kinds: ['microphone'],
      wants: [
        { figure: 'rearRejection', atLeast: 10, atMost: null },
        { figure: 'noiseReSpeechA', atLeast: null, atMost: -50 },
      ],
    },
    { name: 'Singing', kinds: ['microphone'], wants: [] },
    { name: 'Voice-over', kinds: ['microphone'], wants: [{ figure: 'noiseReSpeechA', atLeast: null, atMost: -65 }] },
    {
      name: 'A loud keyboard near',
      kinds: ['microphone'],
      wants: [{ figure: 'rearRejection', atLeast: 15, atMost: null }],
    },
    {
      name: 'Teaching at a distance',
      kinds: ['microphone', 'field-microphone'],
      wants: [{ figure: 'usableDistance', atLeast: 0.9, atMost: null }],
    },
    {
      name: 'On a camera, outdoors',
      kinds: ['field-microphone'],
      wants: [{ figure: 'windUsable', atLeast: 6.7, atMost: null }],
    },
    {
      name: 'Walking with a link',
      kinds: ['field-microphone'],
      wants: [{ figure: 'linkDropOuts', atLeast: null, atMost: 0.5 }],
    },
    { name: 'Cabinet', kinds: ['microphone'], wants: [] },
    { name: 'Drums', kinds: ['microphone'], wants: [] },
    {
      name: 'A quiet dynamic microphone',
      kinds: ['interface'],
      wants: [{ figure: 'einA', atLeast: null, atMost: -128 }],
    },
    {
      name: 'Singing through the computer',
      kinds: ['interface'],
      wants: [{ figure: 'latencyFixed', atLeast: null, atMost: 3 }],
    },
    {
      name: 'A quiet dynamic microphone on a weak preamp',
      kinds: ['booster'],
      wants: [{ figure: 'gainAdded', atLeast: 20, atMost: null }],
    },
    {
      name: 'Noise from next door',
      kinds: ['accessory'],
      wants: [{ figure: 'outsideLessA', atLeast: 6, atMost: null }],
    },
  ],
  rulesOff: [],
  standsOutPercent: 80,
  leastUnits: 5,
};

/** A review before anything is written. */
export const emptyReview = (): ReviewDocument => ({
  headline: '',
  summary: '',
  pros: [],
  cons: [],
  uses: [],
  alternatives: [],
  turningPrice: null,
  obtained: 'not said',
  afterwards: 'not said',
  disclosure: '',
  conditions: '',
  notTested: [],
  appliedBoosts: '',
  links: [],
  decks: [],
  sums: [],
  quotations: [],
});
