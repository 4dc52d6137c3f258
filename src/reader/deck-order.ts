import { letterOf } from '#core/rules/listening/letters';

/** A drawn order of `count` things. */
export function drawnOrder(count: number, draw: (below: number) => number): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = draw(i + 1);
    [order[i], order[j]] = [order[j], order[i]];
  }
  return order;
}

/** A whole number below another one, each as likely. */
export function drawBelow(below: number): number {
  const word = new Uint32Array(1);
  const most = Math.floor(2 ** 32 / below) * below;
  do crypto.getRandomValues(word);
  while (word[0] >= most);
  return word[0] % below;
}

/** What a guess was worth, in words; `lanes` in the order of the letters. */
export function guessWords(
  guessed: number,
  lanes: readonly { readonly name: string; readonly role: string }[],
): string {
  const right = lanes.findIndex((l) => l.role === 'this unit');
  if (guessed === right)
    return `Right: ${letterOf(right)} is ${lanes[right].name}. By chance alone 1 in ${lanes.length} is right.`;
  const unit = right < 0 ? '' : ` ${letterOf(right)} is ${lanes[right].name}.`;
  return `${letterOf(guessed)} is ${lanes[guessed].name}.${unit}`;
}
