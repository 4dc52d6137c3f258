import { Injectable, inject } from '@angular/core';
import { tap, type Observable } from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { AboutListener, Reveal, SendAnswer, SittingState } from '#contracts/listening';
import type { PanelSeat, SeatCommandDraft } from '#contracts/live-panel';
import type { z } from 'zod';
import type { headphonesSchema } from '#contracts/listening';
import { Api } from './api';

const LISTENER_KEY = 'sediment-listener-key';

/** A listener's page asks for this, and for nothing else: no list of units, no event of the catalogue. */
@Injectable({ providedIn: 'root' })
export class SittingData {
  private readonly api = inject(Api);

  /** This browser's listener shows their key again, so that their answers of all tests are one person's. */
  join(key: string, name: string): Observable<{ sitting: string }> {
    const body = { name, listener: localStorage.getItem(LISTENER_KEY) };
    return this.api
      .call(ENDPOINTS.joinTest, { params: { key }, body })
      .pipe(tap(({ listener }) => localStorage.setItem(LISTENER_KEY, listener)));
  }

  state(key: string): Observable<SittingState> {
    return this.api.call(ENDPOINTS.sitting, { params: { key } });
  }

  about(key: string, about: AboutListener): Observable<SittingState> {
    return this.api.call(ENDPOINTS.sittingAbout, { params: { key }, body: about });
  }

  headphones(key: string, found: z.infer<typeof headphonesSchema>): Observable<SittingState> {
    return this.api.call(ENDPOINTS.sittingHeadphones, { params: { key }, body: found });
  }

  answer(key: string, answer: SendAnswer): Observable<SittingState> {
    return this.api.call(ENDPOINTS.sittingAnswer, { params: { key }, body: answer });
  }

  reveal(key: string): Observable<Reveal> {
    return this.api.call(ENDPOINTS.sittingReveal, { params: { key } });
  }

  /** A place in a live panel. */
  seat(key: string): Observable<PanelSeat> {
    return this.api.call(ENDPOINTS.panelSeat, { params: { key } });
  }

  sit(key: string, command: SeatCommandDraft): Observable<PanelSeat> {
    return this.api.call(ENDPOINTS.sitInPanel, { params: { key }, body: command });
  }

  /** What the screen in the room shows. */
  screen(invitation: string): Observable<PanelSeat> {
    return this.api.call(ENDPOINTS.panelScreen, { params: { key: invitation } });
  }

  clipUrl(key: string, trial: number, slot: string): string {
    return `/api/listen/${key}/clips/${trial}/${slot}`;
  }
}
