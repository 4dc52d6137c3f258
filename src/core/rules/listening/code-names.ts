/**
 * Names under which clips of a blind pack go out. Each begins with another letter, in the order of the alphabet, so that
 * a listener may write the name or its letter; which clip gets which is drawn.
 */
export const CODE_NAMES = ['Alder', 'Birch', 'Cedar', 'Dogwood', 'Elm', 'Fern', 'Gorse', 'Hazel', 'Ivy', 'Jasmine', 'Kelp', 'Larch'] as const; // prettier-ignore
