import { Injectable, signal } from '@angular/core';

/** As in the style sheets. */
const NARROW = '(max-width: 760px)';

/** Whether the screen is a phone's: lists that scroll virtually have rows of another height there. */
@Injectable({ providedIn: 'root' })
export class Narrow {
  private readonly query = window.matchMedia(NARROW);
  private readonly state = signal(this.query.matches);
  readonly isNarrow = this.state.asReadonly();

  constructor() {
    this.query.addEventListener('change', (event) => this.state.set(event.matches));
  }
}
