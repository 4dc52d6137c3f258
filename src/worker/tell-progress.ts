import type { MessagePortLike, ProgressMessage } from '#contracts/worker-messages';

/** Tells the share that is done to whoever gave the order, where somebody listens. */
export const tellProgress =
  (port: MessagePortLike | null) =>
  (share: number): void =>
    port?.postMessage({ kind: 'progress', share } satisfies ProgressMessage);
