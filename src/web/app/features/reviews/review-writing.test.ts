import { Subject, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Review, ReviewDocument } from '#contracts/review';
import { emptyReview } from '#domain/review/shipped-house';
import { PAUSE_MS, ReviewWriting } from './review-writing';

const answer = (revision: number, change: Partial<ReviewDocument> = {}): Review => ({
  id: '7',
  unit: { id: '1', name: 'Oarlock Purser · A', category: 'microphone' },
  openedOn: '2026-01-01',
  revision,
  document: { ...emptyReview(), ...change },
  proposals: [],
  marks: [],
  editions: [],
  isChanged: false,
});

/** A server that answers when it is told to. */
class Server {
  readonly sent: { readonly revision: number; readonly headline: string; readonly answers: Subject<Review> }[] = [];
  readonly send = (_id: string, revision: number, { headline }: ReviewDocument): Subject<Review> => {
    const answers = new Subject<Review>();
    this.sent.push({ revision, headline, answers });
    return answers;
  };

  /** Answers the last question, as the next revision. */
  answer(): void {
    const { revision, headline, answers } = this.sent[this.sent.length - 1];
    answers.next(answer(revision + 1, { headline }));
    answers.complete();
  }
}

function begin(revision = 1) {
  const server = new Server();
  let refused = false;
  const writing = new ReviewWriting(server.send, () => refused);
  writing.take(answer(revision));
  return { server, writing, refuse: (is: boolean) => (refused = is) };
}

describe('a review as it is written', () => {
  beforeEach(() => {
    vi.useFakeTimers();
  });
  afterEach(() => {
    vi.useRealTimers();
    localStorage.clear();
  });

  it('is saved once typing is over, all of it in one, from the revision that it goes on from', () => {
    const { server, writing } = begin(3);
    writing.change({ headline: 'Q' });
    vi.advanceTimersByTime(PAUSE_MS - 1);
    writing.change({ headline: 'Quiet' });
    vi.advanceTimersByTime(PAUSE_MS - 1);
    expect([server.sent.length, writing.state()]).toEqual([0, 'waiting']);
    vi.advanceTimersByTime(1);
    expect(server.sent.map(({ revision, headline }) => [revision, headline])).toEqual([[3, 'Quiet']]);
    expect(writing.state()).toBe('saving');
    server.answer();
    expect([writing.state(), writing.review()?.revision, writing.draft()?.headline]).toEqual(['saved', 4, 'Quiet']);
    // Nothing is left behind that would come back.
    expect(localStorage).toHaveLength(0);
  });

  it('what is written while it is saved is neither lost nor sent beside it: it follows, from the next revision', () => {
    const { server, writing } = begin();
    writing.change({ headline: 'one' });
    vi.advanceTimersByTime(PAUSE_MS);
    writing.change({ headline: 'two' });
    vi.advanceTimersByTime(3 * PAUSE_MS);
    // A slow server is not asked twice from one revision: the second would be refused.
    expect(server.sent).toHaveLength(1);
    server.answer();
    expect([writing.draft()?.headline, writing.state()]).toEqual(['two', 'waiting']);
    vi.advanceTimersByTime(PAUSE_MS);
    expect(server.sent.map((s) => s.revision)).toEqual([1, 2]);
    server.answer();
    expect([writing.state(), writing.review()?.revision]).toEqual(['saved', 3]);
  });

  it('publishing waits for everything that is written, and for nothing where all is saved', () => {
    const { server, writing } = begin();
    const published: number[] = [];
    writing.save((r) => published.push(r.revision));
    expect(published).toEqual([1]);
    writing.change({ headline: 'one' });
    writing.save((r) => published.push(r.revision));
    writing.change({ headline: 'two' });
    server.answer();
    // Not what was saved on the way: all of it.
    expect(published).toEqual([1]);
    expect(server.sent).toHaveLength(2);
    server.answer();
    expect(published).toEqual([1, 3]);
  });

  it('is not saved where a field refuses, or where it is too long; what waited for it does not happen', () => {
    const { server, writing, refuse } = begin();
    const published: number[] = [];
    refuse(true);
    writing.change({ headline: 'one' });
    writing.save((r) => published.push(r.revision));
    expect([writing.state(), server.sent.length]).toEqual(['refused', 0]);
    refuse(false);
    writing.change({ headline: 'x'.repeat(161) });
    writing.save();
    expect([writing.state(), server.sent.length, writing.problems().length]).toEqual(['refused', 0, 1]);
    writing.change({ headline: 'short' });
    writing.save();
    server.answer();
    expect([writing.state(), published]).toEqual(['saved', []]);
  });

  it('what the server says of facts comes in beside the text; another text only where nothing is being written', () => {
    const { writing } = begin();
    writing.change({ headline: 'mine' });
    writing.take({ ...answer(2, { headline: 'theirs' }), isChanged: true });
    expect([writing.draft()?.headline, writing.review()?.revision, writing.review()?.isChanged]).toEqual(['mine', 1, true]); // prettier-ignore
    const quiet = begin().writing;
    quiet.forget();
    quiet.take(answer(1));
    quiet.take(answer(2, { headline: 'theirs' }));
    expect(quiet.draft()?.headline).toBe('theirs');
  });

  it('a page that ends before it is saved has it again, and saves it', () => {
    begin().writing.change({ headline: 'kept' });
    vi.clearAllTimers();
    const { server, writing } = begin();
    expect([writing.draft()?.headline, writing.state(), writing.overtaken()]).toEqual(['kept', 'waiting', null]);
    vi.advanceTimersByTime(PAUSE_MS);
    expect(server.sent.map((s) => s.headline)).toEqual(['kept']);
    writing.leave();
    expect(server.sent).toHaveLength(1);
  });

  it('a screen that is left saves at once what waits', () => {
    const { server, writing } = begin();
    writing.change({ headline: 'one' });
    writing.leave();
    expect(server.sent).toHaveLength(1);
    vi.advanceTimersByTime(3 * PAUSE_MS);
    expect(server.sent).toHaveLength(1);
  });

  it('of two windows the second is told, and what it wrote is offered until somebody decides on it', () => {
    const writing = new ReviewWriting(() => throwError(() => new Error('saved meanwhile')), () => false); // prettier-ignore
    writing.take(answer(1));
    writing.change({ headline: 'second window' });
    writing.save();
    expect(writing.state()).toBe('refused');
    expect(writing.problem()).not.toBeNull();

    // Loaded anew, the review is at the revision that the first window saved.
    const { server, writing: again } = begin(2);
    expect([again.draft()?.headline, again.overtaken()?.headline, again.state()]).toEqual([
      '',
      'second window',
      'saved',
    ]);
    expect(again.overtakenChanges()).toEqual(['Headline written anew']);
    // Writing on does not lose it, nor does another load.
    again.change({ summary: 'more' });
    again.save();
    server.answer();
    const third = begin(3).writing;
    expect(third.overtaken()?.headline).toBe('second window');
    third.takeOvertaken();
    expect([third.draft()?.headline, third.overtaken(), third.state()]).toEqual(['second window', null, 'waiting']);
    vi.clearAllTimers();
    third.forget();
    expect([begin(4).writing.overtaken(), localStorage.length]).toEqual([null, 0]);
  });

  it('what was overtaken can be thrown away, and what is thrown away leaves nothing', () => {
    const lost = begin(1).writing;
    lost.change({ headline: 'old' });
    vi.clearAllTimers();
    const { writing } = begin(2);
    writing.dropOvertaken();
    expect(writing.overtaken()).toBeNull();
    expect(begin(2).writing.overtaken()).toBeNull();
    writing.change({ headline: 'x' });
    writing.forget();
    vi.advanceTimersByTime(3 * PAUSE_MS);
    expect([writing.draft(), writing.state(), localStorage.length]).toEqual([null, 'saved', 0]);
  });
});
