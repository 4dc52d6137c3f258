import { Injectable } from '@angular/core';
import { Observable } from 'rxjs';
import { clipSchema, type Clip } from '#contracts/clip';
import { PLAIN_PATHS } from '#contracts/http';
import { ApiError, problemFromText } from './api';

/** How far an upload is. */
export type UploadState =
  { readonly kind: 'sending'; readonly share: number } | { readonly kind: 'stored'; readonly clip: Clip };

/** Sends files to the archive; unsubscribing cancels. */
@Injectable({ providedIn: 'root' })
export class Uploads {
  /** XMLHttpRequest, because fetch does not tell how much of a body has been sent. */
  send(file: File, keepPart = false): Observable<UploadState> {
    return new Observable((subscriber) => {
      const request = new XMLHttpRequest();
      request.upload.onprogress = (e) =>
        subscriber.next({ kind: 'sending', share: e.total > 0 ? e.loaded / e.total : 0 });
      request.onerror = () => subscriber.error(new ApiError(problemFromText('')));
      request.onload = () => {
        if (request.status !== 200) {
          subscriber.error(new ApiError(problemFromText(request.responseText)));
          return;
        }
        subscriber.next({ kind: 'stored', clip: clipSchema.parse(JSON.parse(request.responseText)) });
        subscriber.complete();
      };
      request.open(
        'POST',
        `${PLAIN_PATHS.upload}?name=${encodeURIComponent(file.name)}${keepPart ? '&keepPart=1' : ''}`,
      );
      request.send(file);
      return () => request.abort();
    });
  }
}
