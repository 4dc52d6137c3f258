import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { switchMap } from 'rxjs';
import { asked, NOT_ASKED } from '../../data/asked';
import { SittingData } from '../../data/sitting';

/** For everybody in the room: the letter that is heard, large, and nothing else. */
@Component({
  selector: 'sd-room-screen',
  template: `
    <main>
      @if (seat(); as s) {
        <h1>{{ s.question }}</h1>
        @if (s.turn; as t) {
          <p class="now" role="status">{{ t.now }}</p>
          <p class="letters">
            @for (letter of t.letters; track letter) {
              <span [class.on]="letter === t.now">{{ letter }}</span>
            }
          </p>
          <p class="quiet">{{ t.title }}</p>
        } @else {
          <p class="pause" role="status">{{ s.isOpen ? 'One moment, please.' : 'This panel is over. Thank you.' }}</p>
        }
      } @else if (page().problem; as p) {
        <h1>{{ p.message }}</h1>
      }
    </main>
  `,
  styles: `
    :host {
      display: grid;
      min-height: 100vh;
      background: var(--ground);
    }
    main {
      display: grid;
      gap: 24px;
      place-content: center;
      justify-items: center;
      padding: 24px;
      text-align: center;
    }
    h1 {
      font-size: clamp(20px, 3vw, 40px);
      line-height: 1.2;
    }
    .now {
      min-height: min(50vh, 60vw);
      font: 650 min(50vh, 60vw) / 1 var(--sans);
    }
    .pause {
      font-size: clamp(20px, 3vw, 40px);
      line-height: 1.3;
      color: var(--quiet);
    }
    .letters {
      display: flex;
      flex-wrap: wrap;
      justify-content: center;
      gap: 16px;
      font-size: clamp(20px, 3vw, 40px);
      line-height: 1.3;
      color: var(--quiet);
    }
    .letters .on {
      color: var(--ink);
      font-weight: 650;
      text-decoration: underline;
      text-underline-offset: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RoomScreen {
  readonly key = input.required<string>();
  private readonly data = inject(SittingData);
  protected readonly page = toSignal(
    toObservable(this.key).pipe(switchMap((key) => asked(() => this.data.screen(key)))),
    { initialValue: NOT_ASKED },
  );
  protected readonly seat = computed(() => this.page().value);
}
