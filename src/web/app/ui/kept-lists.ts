import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { ActivatedRoute, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { ListPage } from '#contracts/saved-list';
import { SavedListData } from '../data/saved-lists';
import { Saving } from '../data/saving';
import { Refusals } from './field/refusals';
import { TextField } from './field/text-field';
import { ProblemBox } from './problem-box';

/** Lists of a page that are kept under a name, and a way to keep the one that is shown. */
@Component({
  selector: 'sd-kept-lists',
  imports: [Button, FormsModule, ProblemBox, RouterLink, TextField],
  template: `
    @for (list of lists(); track list.id) {
      <span class="kept">
        <a
          [routerLink]="'/' + page()"
          [queryParams]="list.query"
          [attr.aria-current]="isShown(list.query) ? 'true' : null"
          >{{ list.name }}</a
        >
        <p-button
          size="small"
          [text]="true"
          icon="pi pi-times"
          [ariaLabel]="'Do not keep the list ' + list.name + ' any more'"
          (onClick)="remove(list.id)"
        />
      </span>
    }
    @if (isNaming()) {
      <form (ngSubmit)="keep()" aria-label="Keep this list" (keydown.escape)="isNaming.set(false)">
        <sd-text-field
          label="Name of the list"
          bare
          placeholder="Under 50, for the road …"
          [most]="120"
          [value]="name()"
          (valueChange)="name.set($event)"
        />
        <p-button type="submit" size="small" label="Keep it" [disabled]="name().trim() === ''" />
        <p-button type="button" size="small" [text]="true" label="Cancel" (onClick)="isNaming.set(false)" />
      </form>
    } @else {
      <p-button
        size="small"
        [text]="true"
        icon="pi pi-bookmark"
        label="Keep this list"
        (onClick)="isNaming.set(true)"
      />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
  `,
  styles: `
    :host,
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: center;
    }
    .kept {
      display: inline-flex;
      align-items: center;
      padding-left: 8px;
      border: 1px solid var(--rule);
      border-radius: 2px;
    }
    [aria-current='true'] {
      font-weight: 620;
      text-decoration: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeptLists {
  readonly page = input.required<ListPage>();

  private readonly data = inject(SavedListData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly lists = toSignal(toObservable(this.page).pipe(switchMap((page) => this.data.of(page))), {
    initialValue: [],
  });
  private readonly params = toSignal(inject(ActivatedRoute).queryParamMap, { requireSync: true });
  /** What the address says, part by part. */
  private readonly query = computed(() => {
    const params = this.params();
    return Object.fromEntries(params.keys.map((key) => [key, params.get(key) ?? '']));
  });
  protected readonly isNaming = signal(false);
  protected readonly name = signal('');

  protected readonly isShown = (query: Readonly<Record<string, string>>): boolean => sameQuery(query, this.query());

  protected keep(): void {
    if (this.name().trim() === '' || this.refusals.stop()) return;
    const list = { name: this.name().trim(), page: this.page(), query: this.query() };
    this.saving.run(this.data.keep(list), () => {
      this.isNaming.set(false);
      this.name.set('');
    });
  }

  protected remove(id: string): void {
    this.saving.run(this.data.remove(id));
  }
}

/** Whether two addresses say the same, in whatever order. */
export function sameQuery(a: Readonly<Record<string, string>>, b: Readonly<Record<string, string>>): boolean {
  const text = (query: Readonly<Record<string, string>>): string =>
    JSON.stringify(Object.entries(query).sort(([x], [y]) => (x < y ? -1 : 1)));
  return text(a) === text(b);
}
