import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { UnitAnswer } from '#contracts/unit-answer';
import { CorrectionData } from '../../data/corrections';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ProblemBox } from '../../ui/problem-box';
import { answerWords, sourceWords } from './answer-words';

/** What listeners answered about a unit, one by one, so that a slip can be left out. */
@Component({
  selector: 'sd-unit-answers',
  imports: [Button, ProblemBox],
  template: `
    @if (answers().length > 0) {
      <p-button
        size="small"
        [text]="true"
        [label]="isOpen() ? 'Close the answers' : 'The answers one by one (' + answers().length + ')'"
        [attr.aria-expanded]="isOpen()"
        (onClick)="isOpen.set(!isOpen())"
      />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (isOpen()) {
      <ul>
        @for (a of answers(); track a.id) {
          <li [class.quiet]="a.isLeftOut">
            <span class="num">{{ a.day }}</span>
            <span class="said">{{ words(a) }}</span>
            <span class="small quiet">{{ source(a) }}</span>
            <p-button
              size="small"
              [text]="true"
              [label]="a.isLeftOut ? 'Take back' : 'Leave out'"
              [ariaLabel]="(a.isLeftOut ? 'Take back: ' : 'Leave out: ') + words(a) + ', ' + a.day"
              (onClick)="setOut(a)"
            />
          </li>
        }
      </ul>
    }
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      max-height: 320px;
      overflow: auto;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
    }
    .said {
      flex: 1 1 260px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitAnswers {
  readonly unit = input.required<string>();

  private readonly data = inject(CorrectionData);
  private readonly loaded = toSignal(toObservable(this.unit).pipe(switchMap((id) => this.data.answersOfUnit(id))), {
    initialValue: LOADING,
  });
  protected readonly answers = computed(() => this.loaded().value ?? []);
  protected readonly isOpen = signal(false);
  protected readonly saving = new Saving();
  protected readonly words = answerWords;
  protected readonly source = sourceWords;

  protected setOut({ id, isLeftOut }: UnitAnswer): void {
    this.saving.run(this.data.correct({ kind: 'answer-left-out', answer: id, isOut: !isLeftOut }));
  }
}
