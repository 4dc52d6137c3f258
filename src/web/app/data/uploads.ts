import { Injectable, inject } from '@angular/core';
import {
  catchError,
  defer,
  EMPTY,
  expand,
  last,
  map,
  Observable,
  of,
  retry,
  switchMap,
  tap,
  throwError,
  timer,
} from 'rxjs';
import { clipSchema, type Clip } from '#contracts/clip';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { uploadSchema, type Upload } from '#contracts/upload';
import { decodeMedia, UndecodableError } from '../audio/decode-media';
import { Api, ApiError, problemFromText, UNREACHABLE } from './api';

/** How far an upload is. */
export type UploadState =
  { readonly kind: 'sending'; readonly share: number } | { readonly kind: 'stored'; readonly clip: Clip };

/** Files beyond this go in parts, each of which survives a broken connection. */
const LARGE_BYTES = 32 * 2 ** 20;
const PART_BYTES = 8 * 2 ** 20;
/** Waits between attempts, in milliseconds; together some five minutes. */
const WAITS_MS = [500, 1000, 2000, 5000, 10_000, 30_000, 60_000, 60_000, 120_000] as const;

/** Sends files to the archive; unsubscribing cancels. */
@Injectable({ providedIn: 'root' })
export class Uploads {
  private readonly api = inject(Api);

  /** What the server has no decoder for is decoded here: its samples go first, then the file itself beside them. */
  send(file: File, keepPart = false): Observable<UploadState> {
    return this.sendAs(file, { keepPart, decoded: null }).pipe(
      catchError((error: unknown) => (isForPage(error) ? this.decodedHere(file) : throwError(() => error))),
    );
  }

  private decodedHere(file: File): Observable<UploadState> {
    const wav = new Observable<UploadState | File>((subscriber) => {
      decodeMedia(file, (share) => subscriber.next({ kind: 'sending', share })).then(
        (decoded) => {
          subscriber.next(decoded);
          subscriber.complete();
        },
        (error: unknown) => subscriber.error(error instanceof UndecodableError ? undecodable(error.message) : error),
      );
    });
    const sent = (samples: File): Observable<UploadState> =>
      this.sendAs(samples, { keepPart: false, decoded: null }).pipe(
        switchMap((state) =>
          state.kind === 'stored' ? this.sendAs(file, { keepPart: false, decoded: state.clip.sha256 }) : of(state),
        ),
      );
    return wav.pipe(switchMap((state) => (state instanceof File ? sent(state) : of(state))));
  }

  private sendAs(file: File, options: SendOptions): Observable<UploadState> {
    return file.size > LARGE_BYTES ? this.inParts(file, options) : this.atOnce(file, options);
  }

  private atOnce(file: File, { keepPart, decoded }: SendOptions): Observable<UploadState> {
    const query = new URLSearchParams({ name: file.name });
    if (keepPart) query.set('keepPart', '1');
    if (decoded !== null) query.set('decoded', decoded);
    const path = `${PLAIN_PATHS.upload}?${query.toString()}`;
    return sendBytes('POST', path, file).pipe(
      map((step): UploadState =>
        step.answer === null
          ? { kind: 'sending', share: step.share }
          : { kind: 'stored', clip: clipSchema.parse(step.answer) },
      ),
    );
  }

  /**
   * Part by part, each begun where the server says that the last one ended. A broken connection is waited out; the
   * same file chosen again after a reload goes on where it was.
   */
  private inParts(file: File, options: SendOptions): Observable<UploadState> {
    const known = `sediment-upload ${file.name}/${file.size}/${file.lastModified}`;
    const parts = defer(() => this.begun(file, known)).pipe(
      expand((upload) => (upload.offset < upload.bytes ? this.part(file, upload) : EMPTY)),
    );
    const stored = (upload: Upload): Observable<UploadState> =>
      this.api.call(ENDPOINTS.finishUpload, { params: { id: upload.id }, body: options }).pipe(
        tap(() => localStorage.removeItem(known)),
        map((clip): UploadState => ({ kind: 'stored', clip })),
      );
    return new Observable<UploadState>((subscriber) =>
      parts
        .pipe(
          tap(({ offset, bytes }) => subscriber.next({ kind: 'sending', share: offset / bytes })),
          last(),
          switchMap(stored),
        )
        .subscribe(subscriber),
    );
  }

  /** The upload of this very file that was begun before, or a new one. */
  private begun(file: File, known: string): Observable<Upload> {
    const id = localStorage.getItem(known);
    const anew = this.api
      .call(ENDPOINTS.beginUpload, { body: { name: file.name, bytes: file.size } })
      .pipe(tap((upload) => localStorage.setItem(known, upload.id)));
    return id === null
      ? anew
      : this.api.call(ENDPOINTS.uploadState, { params: { id } }).pipe(
          retry({ delay: waited }),
          // Finished, or thrown away after a week: begun anew.
          catchError((error: unknown) => (isGone(error) ? anew : throwError(() => error))),
        );
  }

  private part(file: File, upload: Upload): Observable<Upload> {
    let now = upload;
    return defer(() => {
      const path = PLAIN_PATHS.uploadPart.replace(':id', now.id).replace(':offset', String(now.offset));
      return sendBytes('PATCH', path, file.slice(now.offset, now.offset + PART_BYTES));
    }).pipe(
      last(),
      map((step) => uploadSchema.parse(step.answer)),
      retry({
        delay: (error, attempt) =>
          waited(error, attempt).pipe(
            // What has arrived of the part that broke off counts.
            switchMap(() =>
              this.api.call(ENDPOINTS.uploadState, { params: { id: now.id } }).pipe(retry({ delay: waited })),
            ),
            tap((state) => (now = state)),
          ),
      }),
    );
  }
}

/** How a file is sent. */
interface SendOptions {
  readonly keepPart: boolean;
  /** The clip that a compressed file was decoded to here. */
  readonly decoded: string | null;
}

const isForPage = (error: unknown): boolean => error instanceof ApiError && error.problem.code === 'clip-for-page';

const undecodable = (message: string): ApiError =>
  new ApiError({
    ...UNREACHABLE,
    code: 'clip-refused',
    message,
    safe: 'The file you have is untouched; nothing of it was stored.',
    next: 'Export its sound as WAV or FLAC, and add that.',
  });

const isGone = (error: unknown): boolean => error instanceof ApiError && error.problem.code === 'not-found';

/** A refusal is final; silence is waited out, longer each time. */
function waited(error: unknown, attempt: number): Observable<unknown> {
  const code = error instanceof ApiError ? error.problem.code : '';
  const isPassing = ['unreachable', 'upload-broken', 'upload-out-of-step', 'too-many', 'too-busy'].includes(code);
  const wait = WAITS_MS.at(attempt - 1);
  return isPassing && wait !== undefined ? timer(wait) : throwError(() => error);
}

/** XMLHttpRequest, because fetch does not tell how much of a body has been sent. */
function sendBytes(method: string, path: string, body: Blob): Observable<{ share: number; answer: unknown }> {
  return new Observable((subscriber) => {
    const request = new XMLHttpRequest();
    request.upload.onprogress = (e) => subscriber.next({ share: e.total > 0 ? e.loaded / e.total : 0, answer: null });
    request.onerror = () => subscriber.error(new ApiError(problemFromText('')));
    request.onload = () => {
      if (request.status !== 200) {
        subscriber.error(new ApiError(problemFromText(request.responseText)));
        return;
      }
      subscriber.next({ share: 1, answer: JSON.parse(request.responseText) as unknown });
      subscriber.complete();
    };
    request.open(method, path);
    request.send(body);
    return () => request.abort();
  });
}
