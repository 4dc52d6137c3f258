import { capital } from '#core/text/capital';
import type { Edition } from '#contracts/edition';

/** How the unit came and where it went: a reader has to know before the verdict. */
export function disclosureText({ obtained, afterwards, disclosure }: Edition['text']): string {
  const came = obtained === 'not said' ? 'How it came here is not said' : capital(obtained);
  const went = afterwards === 'not said' ? '' : `; ${afterwards}`;
  return `${came}${went}.${disclosure === '' ? '' : ` ${disclosure}`}`;
}
