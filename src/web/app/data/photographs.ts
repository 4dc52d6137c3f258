import { Injectable } from '@angular/core';
import { from, switchMap, throwError, type Observable } from 'rxjs';
import { PLAIN_PATHS } from '#contracts/http';
import { photographSchema, type NewPhotograph, type Photograph } from '#contracts/photograph';
import { ApiError, problemFromText } from './api';

/** Photographs go to the server as they are; it takes away what the camera wrote beside them. */
@Injectable({ providedIn: 'root' })
export class PhotographData {
  add(specimenId: string, file: File, about: NewPhotograph): Observable<Photograph> {
    const query = new URLSearchParams(about).toString();
    const path = `${PLAIN_PATHS.photoUpload.replace(':id', specimenId)}?${query}`;
    return from(
      fetch(path, { method: 'POST', body: file }).then(async (r) => ({ ok: r.ok, text: await r.text() })),
    ).pipe(
      switchMap(({ ok, text }) =>
        ok ? [photographSchema.parse(JSON.parse(text))] : throwError(() => new ApiError(problemFromText(text))),
      ),
    );
  }
}

/** Where a photograph is fetched. */
export const photoUrl = ({ sha256 }: Pick<Photograph, 'sha256'>): string =>
  PLAIN_PATHS.photo.replace(':sha256', sha256);
