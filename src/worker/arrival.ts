import type { MessagePort } from 'node:worker_threads';

/**
 * The first message at a port. It is listened for from now on, so that none is missed while a clip is read.
 *
 * @returns null where the port was closed before one came
 */
export const arrivalAt = <Message>(port: MessagePort): Promise<Message | null> =>
  new Promise((resolve) => {
    port.once('message', resolve);
    port.once('close', () => resolve(null));
  });
