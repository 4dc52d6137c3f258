import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { Button } from 'primeng/button';
import type { Problem } from '#contracts/problem';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { SittingData } from '../../data/sitting';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';

/** Where a link or a QR code leads: a name, and the test begins. */
@Component({
  selector: 'sd-join',
  imports: [Button, FormsModule, ProblemBox, TextField],
  template: `
    <main>
      <h1>Listening test</h1>
      <p>
        You will hear clips under letters and say what you hear. Take a quiet place and, if you can, headphones. You may
        stop at any time; your answers are kept, and your link opens the test again, on any device.
      </p>
      @if (problem(); as p) {
        <sd-problem-box [problem]="p" />
      }
      <form (ngSubmit)="join()">
        <sd-text-field
          label="Your name, or any name you like"
          [most]="120"
          [value]="name()"
          (valueChange)="name.set($event)"
        />
        <p-button type="submit" label="Begin" [disabled]="name().trim() === '' || isBusy()" />
      </form>
      <p class="quiet small">
        What you answer is stored with this name on the reviewer's own machine, and nowhere else.
      </p>
    </main>
  `,
  styleUrl: './sitting.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Join {
  readonly key = input.required<string>();
  private readonly data = inject(SittingData);
  private readonly refusals = inject(Refusals);
  private readonly router = inject(Router);
  protected readonly name = signal('');
  protected readonly problem = signal<Problem | null>(null);
  protected readonly isBusy = signal(false);

  protected join(): void {
    if (this.refusals.stop()) return;
    this.isBusy.set(true);
    this.data.join(this.key(), this.name().trim()).subscribe({
      next: ({ sitting }) => void this.router.navigate(['/listen', sitting], { replaceUrl: true }),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }
}
