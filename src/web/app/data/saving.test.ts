import { of, Subject, throwError } from 'rxjs';
import { describe, expect, it } from 'vitest';
import { ApiError, UNREACHABLE } from './api';
import { Saving } from './saving';

describe('what a page asks the server to do', () => {
  it('is done once it is answered', () => {
    const saving = new Saving();
    const answer = new Subject<number>();
    const done: number[] = [];
    saving.run(answer, (n) => done.push(n));
    expect([saving.isBusy(), done]).toEqual([true, []]);
    answer.next(7);
    expect([saving.isBusy(), saving.problem(), done]).toEqual([false, null, [7]]);
  });

  it('is asked once, however often it is pressed', () => {
    const saving = new Saving();
    let asked = 0;
    const call = new Subject<void>();
    const counting = () => {
      asked++;
      return call;
    };
    for (let i = 0; i < 3; i++) if (!saving.isBusy()) saving.run(counting());
    const second: string[] = [];
    saving.run(of('second'), (s) => second.push(s));
    expect([asked, second]).toEqual([1, []]);
    call.complete();
    expect(saving.isBusy()).toBe(false);
  });

  it('is refused with the problem, and the page stays as it is', () => {
    const saving = new Saving();
    const done: unknown[] = [];
    const problem = { ...UNREACHABLE, message: 'No.' };
    saving.run(
      throwError(() => new ApiError(problem)),
      (x) => done.push(x),
    );
    expect([saving.isBusy(), saving.problem(), done]).toEqual([false, problem, []]);
    saving.run(of(1), (x) => done.push(x));
    expect([saving.problem(), done]).toEqual([null, [1]]);
  });
});
