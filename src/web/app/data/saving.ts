import { signal } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { problemOf } from './api';

/** What a page asks the server to do, one thing at a time: under way, done, or refused with a problem that is shown. */
export class Saving {
  readonly problem = signal<Problem | null>(null);
  readonly isBusy = signal(false);

  /**
   * @param call - what is asked; nothing is while something is under way
   * @param done - once it is answered; a refusal leaves the page as it is
   */
  run<T>(call: Observable<T>, done: (answer: T) => void = () => undefined): void {
    if (this.isBusy()) return;
    this.isBusy.set(true);
    this.problem.set(null);
    call.subscribe({
      next: (answer) => {
        this.isBusy.set(false);
        done(answer);
      },
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.problem.set(problemOf(error));
      },
      complete: () => this.isBusy.set(false),
    });
  }
}
