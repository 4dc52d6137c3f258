import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { PLAIN_PATHS } from '#contracts/http';
import {
  PICTURES,
  PICTURE_SIZES,
  PICTURE_THEMES,
  type PictureKind,
  type PictureSize,
  type PictureTheme,
} from '#contracts/picture';
import type { EditionRow, Review } from '#contracts/review';
import { Button } from 'primeng/button';
import { ReviewData } from '../../data/reviews';
import { Saving } from '../../data/saving';
import { ProblemBox } from '../../ui/problem-box';
import { fileName, pngOfText, saveFile, saveFrom } from '../../ui/save-picture';
import { tooLargeWords } from './shelf';
import { ChoiceField } from '../../ui/field/choice-field';

/** What was published, what has changed since, and what can be handed out. */
@Component({
  selector: 'sd-edition-list',
  imports: [Button, ChoiceField, ProblemBox],
  template: `
    @for (e of review().editions; track e.id; let first = $first) {
      <section class="panel pad" [class.since]="first && e.since.length > 0">
        <h2>
          Edition {{ e.number }}
          <span class="quiet small">published {{ e.publishedOn }}{{ first ? '' : ', replaced' }}</span>
        </h2>
        <p>{{ e.headline }}</p>
        @if (first) {
          @if (e.since.length > 0) {
            <details [open]="e.since.length <= 4">
              <summary>Since then: {{ e.since.length === 1 ? 'one change' : e.since.length + ' changes' }}</summary>
              <ul>
                @for (c of e.since; track c.text) {
                  <li>{{ c.text }}</li>
                }
              </ul>
            </details>
          } @else {
            <p class="small quiet">Nothing that counts has changed since.</p>
          }
          @if (review().isChanged) {
            <p class="small warn">
              What is written below is not what was published: publishing makes the next edition.
            </p>
          }
          <div class="out">
            <sd-choice-field
              label="Clips"
              [options]="packings"
              [value]="packing()"
              (valueChange)="packing.set($event)"
            />
            <a class="link" [href]="pageOf(e)" download (click)="page(e, $event)">{{
              making.isBusy() ? 'Making it …' : 'One HTML file'
            }}</a>
            @if (packing() !== 'none') {
              <a class="link" [href]="path(e, 'editionFolder') + query()" download>Page and clips in a folder</a>
            }
            <a class="link" [href]="path(e, 'editionMarkdown')" download>Markdown</a>
            <a class="link" [href]="path(e, 'editionFilm')" download>Text for a film</a>
            <a class="link" [href]="path(e, 'editionDocument')" download>The frozen document</a>
            @if (packing() !== 'none') {
              <a class="link" [href]="path(e, 'editionPack') + query()" download>Everything behind it, as a bag</a>
            }
          </div>
          @if (making.problem(); as p) {
            <sd-problem-box [problem]="p" />
          }
          @if (tooLarge(); as words) {
            <p class="small warn" role="alert">{{ words }}</p>
          }
          <div class="out">
            <sd-choice-field
              label="Picture for a film"
              [options]="pictures"
              [value]="picture()"
              (valueChange)="picture.set($event)"
            />
            <sd-choice-field label="Size" [options]="sizes" [value]="size()" (valueChange)="size.set($event)" />
            <sd-choice-field label="Theme" [options]="themes" [value]="theme()" (valueChange)="theme.set($event)" />
            <a class="link" [href]="pictureOf(e)" download>Picture as SVG</a>
            <p-button size="small" severity="secondary" label="Picture as PNG" (onClick)="png(e)" />
            @if (pictureProblem(); as words) {
              <span class="small warn" role="alert">{{ words }}</span>
            }
          </div>
        } @else if (e.changes.length > 0) {
          <a
            class="link small"
            [href]="pageOf(e)"
            download
            [attr.aria-label]="'One HTML file of edition ' + e.number"
            (click)="page(e, $event)"
            >One HTML file</a
          >
        }
        @if (e.changes.length > 0) {
          <details>
            <summary class="small">Changed in this edition: {{ e.changes.length }}</summary>
            <ul>
              @for (c of e.changes; track c.text) {
                <li>{{ c.text }}</li>
              }
            </ul>
          </details>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    section {
      display: grid;
      gap: 4px;
    }
    h2,
    p,
    ul {
      margin: 0;
    }
    .since {
      border-left: 4px solid var(--ochre);
    }
    .warn {
      color: var(--ochre-text);
    }
    .out {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: end;
    }
    summary {
      cursor: pointer;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EditionList {
  readonly review = input.required<Review>();

  private readonly data = inject(ReviewData);
  protected readonly making = new Saving();
  protected readonly tooLarge = signal('');
  protected readonly packing = signal('flac');
  protected readonly packings = [
    { label: 'FLAC, 16 bits', value: 'flac', note: 'as it was recorded' },
    { label: 'Opus, 128 kbit/s', value: 'opus-128', note: 'a third of the size' },
    { label: 'Opus, 64 kbit/s', value: 'opus-64', note: 'for the post' },
    { label: 'none', value: 'none', note: 'text and figures only' },
  ];
  protected readonly picture = signal<PictureKind>('figures');
  protected readonly size = signal<PictureSize>('1280x720');
  protected readonly theme = signal<PictureTheme>('chalk');
  protected readonly pictures = (Object.keys(PICTURES) as PictureKind[]).map((value) => ({ label: PICTURES[value], value })); // prettier-ignore
  protected readonly sizes = (Object.keys(PICTURE_SIZES) as PictureSize[]).map((value) => ({ label: value.replace('x', ' × '), value })); // prettier-ignore
  protected readonly themes = PICTURE_THEMES.map((value) => ({ label: value, value }));
  protected readonly pictureProblem = signal('');
  protected readonly query = computed(() => `?clips=${this.packing()}`);

  protected path(
    edition: EditionRow,
    name: 'editionMarkdown' | 'editionFilm' | 'editionDocument' | 'editionPage' | 'editionPack' | 'editionFolder',
  ): string {
    return PLAIN_PATHS[name].replace(':id', edition.id);
  }

  protected pageOf(edition: EditionRow): string {
    return this.path(edition, 'editionPage') + this.query();
  }

  /** Clips may make one file too large to be handed out: that is said before it is asked for. */
  protected page(edition: EditionRow, event: Event): void {
    this.tooLarge.set('');
    if (this.packing() === 'none') return;
    event.preventDefault();
    const href = this.pageOf(edition);
    this.making.run(this.data.pageSize(edition.id, this.packing()), (size) => {
      const words = tooLargeWords(size);
      if (words === '') saveFrom(href);
      else this.tooLarge.set(words);
    });
  }

  protected pictureOf({ id }: EditionRow): string {
    const path = PLAIN_PATHS.editionPicture.replace(':id', id).replace(':kind', this.picture());
    return `${path}?size=${this.size()}&theme=${this.theme()}`;
  }

  protected async png(edition: EditionRow): Promise<void> {
    this.pictureProblem.set('');
    const answer = await fetch(this.pictureOf(edition));
    if (!answer.ok) {
      this.pictureProblem.set(`This edition has nothing to draw under “${PICTURES[this.picture()]}”.`);
      return;
    }
    const { px } = PICTURE_SIZES[this.size()];
    const name = `${fileName(this.review().unit.name)}-edition-${edition.number}-${this.picture()}-${this.size()}-${this.theme()}.png`;
    saveFile(name, await pngOfText(await answer.text(), px.width, px.height));
  }
}
