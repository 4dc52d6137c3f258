import { request, type IncomingHttpHeaders, type RequestOptions } from 'node:http';

/** What came back. */
interface RawAnswer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}

/**
 * Sends exactly these bytes as the address (fetch would mend it), over a connection of its own.
 * A stream of events has no end: what comes first is its answer.
 */
export function rawRequest(options: RequestOptions, body?: string | Buffer): Promise<RawAnswer> {
  return new Promise((resolve, reject) => {
    const sent = request({ ...options, agent: false }, (response) => {
      let text = '';
      const end = (): void => {
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body: text });
        sent.destroy();
      };
      response.on('data', (part: Buffer) => {
        text += part.toString();
        if (response.headers['content-type'] === 'text/event-stream') end();
      });
      response.on('end', end);
    });
    sent.on('error', reject);
    sent.end(body);
  });
}
