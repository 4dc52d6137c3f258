/** One more in an order, 0 before the first. */
export const putIn = (order: readonly string[], item: string, at: number): string[] => [
  ...order.slice(0, at),
  item,
  ...order.slice(at),
];
