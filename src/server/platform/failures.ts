import { ZodError } from 'zod';
import { AudioFileError } from '#core/audio/audio-file-error';
import { isDiskFull } from './archive/disk-full';
import type { Problem, ProblemDetail } from '#contracts/problem';

/** Every way a request can fail: HTTP status, what is safe, what to do. */
const CATALOGUE = {
  'invalid-request': { status: 400, safe: 'Nothing was changed.', next: 'Correct what is listed and send it again.' },
  'not-found': { status: 404, safe: 'Nothing was changed.', next: 'Go back to the list; it may have been renamed.' },
  'wrong-host': {
    status: 403,
    safe: 'Nothing was changed.',
    next: 'Open Sediment by the address that it printed when it started.',
  },
  'run-refused': {
    status: 422,
    safe: 'Nothing of this run was stored; the files you have are untouched.',
    next: 'Correct everything that is listed, then import the run again.',
  },
  'clip-refused': {
    status: 422,
    safe: 'The file you have is untouched; nothing of it was stored.',
    next: 'Export the clip again as WAV or FLAC from the recorder or editor.',
  },
  'clip-truncated': {
    status: 422,
    safe: 'The file you have is untouched; nothing of it was stored.',
    next: 'Copy it again from the recorder, or keep the part that is there.',
  },
  'clip-damaged': {
    status: 409,
    safe: 'Its figures, and everything else, are untouched.',
    next: 'Upload the original file again: it takes the place of the damaged one.',
  },
  'upload-broken': {
    status: 400,
    safe: 'Nothing half-written was kept.',
    next: 'Send the file again.',
  },
  'upload-out-of-step': {
    status: 409,
    safe: 'What has arrived is kept.',
    next: 'The page asks how far it is, and goes on from there.',
  },
  'upload-incomplete': {
    status: 409,
    safe: 'What has arrived is kept.',
    next: 'Send the rest, then end the upload.',
  },
  'too-busy': {
    status: 503,
    safe: 'Nothing was changed.',
    next: 'Wait until what is running has ended, then try again.',
  },
  'storage-full': {
    status: 507,
    safe: 'Everything stored before is untouched; nothing half-written was kept.',
    next: 'Free some space in the data folder, then send the file again.',
  },
  'storage-read-only': {
    status: 507,
    safe: 'Everything stored before is untouched; nothing half-written was kept.',
    next: 'Give Sediment the right to write in its data folder, then try again.',
  },
  'archive-damaged': {
    status: 500,
    safe: 'Nothing was changed. The clips are files of their own and are not touched by this.',
    next: 'Stop Sediment and put the folder "database" of your last backup in its place; "sediment check" says what else is wrong.',
  },
  'record-damaged': {
    status: 500,
    safe: 'Nothing was changed; everything else works.',
    next: 'The page "Archive" names what cannot be read; note it, and go on with the rest.',
  },
  'too-large': {
    status: 413,
    safe: 'Nothing was changed.',
    next: 'Send less at a time.',
  },
  'too-many': {
    status: 429,
    safe: 'Nothing was changed.',
    next: 'Wait a minute, then try again.',
  },
  'token-needed': {
    status: 403,
    safe: 'Nothing was changed.',
    next: 'Open Sediment by the whole address that it printed when it started, token included.',
  },
  'already-running': {
    status: 409,
    safe: 'Nothing was changed.',
    next: 'Wait for it to end.',
  },
  'protocol-frozen': {
    status: 409,
    safe: 'The version that was used stays as it is, and so do all results.',
    next: 'Save your changes as the next version.',
  },
  'protocol-refused': {
    status: 422,
    safe: 'Nothing was saved; all versions stay as they are.',
    next: 'Correct what is listed and save again.',
  },
  'recording-incomplete': {
    status: 409,
    safe: 'What has arrived is kept.',
    next: 'The page sends the missing part again; or keep what is there.',
  },
  'plan-refused': {
    status: 409,
    safe: 'Nothing was changed; all takes are kept.',
    next: 'Do what the message says, then try again.',
  },
  'correction-refused': {
    status: 409,
    safe: 'Nothing was changed.',
    next: 'Do what the message says, then try again.',
  },
  'takes-undecided': {
    status: 409,
    safe: 'Nothing was changed; all takes are kept.',
    next: 'Decide on them, or say that they stay beside the run, undecided.',
  },
  'take-refused': {
    status: 422,
    safe: 'The take and its clip are kept.',
    next: 'Retake it, or overrule each check with a reason.',
  },
  'answer-refused': {
    status: 409,
    safe: 'All answers given so far are kept.',
    next: 'Do what the message says, or ask whoever runs the test.',
  },
  'answers-refused': {
    status: 422,
    safe: 'Nothing of this file was stored.',
    next: 'Correct every line that is listed, then bring the file in again.',
  },
  internal: {
    status: 500,
    safe: 'What was stored before is untouched.',
    next: 'Try again; if it happens again, the log in the terminal says more.',
  },
} as const;

export type FailureCode = keyof typeof CATALOGUE;

/** A failure of the catalogue, with its message and details. */
export class Failure extends Error {
  override readonly name = 'Failure';
  constructor(
    readonly code: FailureCode,
    message: string,
    readonly details: readonly ProblemDetail[] = [],
    readonly truncation: Problem['truncation'] = null,
  ) {
    super(message);
  }

  get status(): number {
    return CATALOGUE[this.code].status;
  }

  toProblem(): Problem {
    const { safe, next } = CATALOGUE[this.code];
    return {
      code: this.code,
      message: this.message,
      safe,
      next,
      details: [...this.details],
      truncation: this.truncation,
    };
  }
}

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
