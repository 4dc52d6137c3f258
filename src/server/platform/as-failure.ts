import { ZodError } from 'zod';
import { AudioFileError } from '#core/audio/audio-file-error';
import { isDiskFull } from './archive/disk-full';
import { Failure } from './failure';

/** What the error of a library or of the system says, as far as anything of it may be read. */
interface ForeignError {
  readonly code?: unknown;
  /** Of errors that Express and its parsers throw. */
  readonly status?: unknown;
  readonly type?: unknown;
}

/**
 * Any error as a failure. What is not foreseen is internal, and says nothing of texts, statements or schemas that the
 * error may carry.
 */
export function asFailure(error: unknown): Failure {
  if (error instanceof Failure) return error;
  if (error instanceof AudioFileError) return new Failure('clip-refused', error.message);
  const { code, status, type } = (error ?? {}) as ForeignError;
  if (typeof code === 'string') {
    const failure = failureOfCode(code);
    if (failure) return failure;
  }
  // A record of the database that does not fit its schema: what comes from outside was parsed at the door.
  if (error instanceof ZodError) return new Failure('record-damaged', 'A record of the archive cannot be read.');
  if (typeof status === 'number' && status >= 400 && status < 500) return failureOfRequest(status, type);
  return new Failure('internal', 'Something went wrong that was not foreseen.');
}

/** Codes of the system (ENOSPC) and of PostgreSQL (appendix A of its manual: class and condition). */
function failureOfCode(code: string): Failure | null {
  if (isDiskFull({ code })) return new Failure('storage-full', 'There is no space left in the data folder.');
  if (['EROFS', 'EACCES', 'EPERM'].includes(code))
    return new Failure('storage-read-only', 'The data folder cannot be written to.');
  if (/^(XX|58)[0-9A-Z]{3}$/.test(code))
    return new Failure('archive-damaged', 'A file of the database is damaged or missing.');
  // Class 22: a value that its column cannot hold; 23514: one that a rule of the table refuses.
  if (/^22[0-9A-Z]{3}$/.test(code) || code === '23514')
    return new Failure('invalid-request', 'A value in this request is outside of what can be kept.');
  if (code === '23503') return new Failure('not-found', 'Something that this request names is not there.');
  return null;
}

/** What Express and its parsers refuse before any of our code sees it. */
function failureOfRequest(status: number, type: unknown): Failure {
  if (status === 413) return new Failure('too-large', 'The request is larger than is taken in at once.');
  const words: Record<string, string> = {
    'entity.parse.failed': 'The request is not valid JSON.',
    'charset.unsupported': 'The request is written in a character set that is not understood; UTF-8 is.',
    'encoding.unsupported': 'The request is compressed in a way that is not understood.',
    'request.aborted': 'The request broke off before its end.',
    'request.size.invalid': 'The request is shorter or longer than it says.',
  };
  const message = typeof type === 'string' ? words[type] : undefined;
  return new Failure('invalid-request', message ?? 'The request cannot be read: its address or a header is not valid.');
}
