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
    next: 'Export the clip again as WAV or FLAC (or MP3, M4A, Ogg, Opus) from the recorder or editor.',
  },
  'clip-for-page': {
    status: 422,
    safe: 'The file you have is untouched; nothing of it was stored.',
    next: 'Add it on a page of Sediment, whose browser decodes it, or export it as WAV or FLAC.',
  },
  'photo-refused': {
    status: 422,
    safe: 'The file you have is untouched; nothing of it was stored.',
    next: 'Export it as JPEG, PNG or WebP, smaller where it is too large.',
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
  'no-thread': {
    status: 500,
    safe: 'Everything that was kept is untouched.',
    next: 'Stop Sediment and start it again; where that does not help, its files are incomplete: install it anew.',
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
