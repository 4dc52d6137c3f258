import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { filter, firstValueFrom } from 'rxjs';
import { PICTURE_SIZES, type PictureSize } from '#contracts/picture';
import { ReviewData } from '../data/reviews';
import { ChoiceField, type Choice } from './field/choice-field';
import { framedPicture, measures, withLegend, type LegendEntry } from './framed-picture';
import { fileName, pngOfText, saveFile, svgText } from './save-picture';

/** The screen shows two device pixels for one of a drawing: so fine are its pixels when they are saved. */
const FINENESS = 2;

/** Takes a drawing and its data out: SVG, PNG, CSV; as it is shown, or framed for a film. */
@Component({
  selector: 'sd-export-row',
  imports: [Button, ChoiceField],
  template: `
    <span class="quiet small">Export</span>
    <sd-choice-field
      [label]="'Size of the picture: ' + title()"
      bare
      [options]="sizes"
      [value]="size()"
      (valueChange)="size.set($event)"
    />
    <p-button label="SVG" [text]="true" size="small" [ariaLabel]="'SVG of ' + title()" (onClick)="svg()" />
    <p-button label="PNG" [text]="true" size="small" [ariaLabel]="'PNG of ' + title()" (onClick)="png()" />
    <p-button
      label="CSV"
      [text]="true"
      size="small"
      [ariaLabel]="'Data of ' + title() + ' as CSV'"
      (onClick)="data()"
    />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      justify-content: flex-end;
      align-items: center;
      gap: 0;
    }
    sd-choice-field {
      margin: 0 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExportRow {
  readonly title = input.required<string>();
  readonly drawing = input.required<() => SVGSVGElement | null>();
  readonly csv = input.required<() => string>();
  /** Lines of the drawing, by CSS variables of their colours, where its own legend is no part of it. */
  readonly legend = input<readonly LegendEntry[]>([]);

  private readonly reviews = inject(ReviewData);
  protected readonly size = signal<PictureSize | null>(null);
  protected readonly sizes: readonly Choice<PictureSize | null>[] = [
    { label: 'as shown', value: null },
    ...(Object.keys(PICTURE_SIZES) as PictureSize[]).map((value) => ({ label: value.replace('x', ' × '), value })),
  ];

  protected async svg(): Promise<void> {
    const picture = await this.picture();
    if (picture) saveFile(`${this.name()}.svg`, new Blob([picture.svg], { type: 'image/svg+xml' }));
  }

  protected async png(): Promise<void> {
    const picture = await this.picture();
    if (picture) saveFile(`${this.name()}.png`, await pngOfText(picture.svg, picture.width, picture.height));
  }

  protected data(): void {
    saveFile(`${fileName(this.title())}.csv`, new Blob([this.csv()()], { type: 'text/csv' }));
  }

  private name(): string {
    const size = this.size();
    return `${fileName(this.title())}${size === null ? '' : `-${size}`}`;
  }

  private async picture(): Promise<{ svg: string; width: number; height: number } | null> {
    const drawing = this.drawing()();
    if (!drawing) return null;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const colours = { ground: colour('--panel'), ink: colour('--ink'), quiet: colour('--quiet'), mark: colour('--realgar') }; // prettier-ignore
    const legend = this.legend().map((entry) => ({ ...entry, colour: colour(entry.colour) }));
    const size = this.size();
    if (size === null) {
      const svg = withLegend(svgText(drawing), legend, colours);
      const { width, height } = measures(svg);
      return { svg, width: FINENESS * width, height: FINENESS * height };
    }
    const loaded = await firstValueFrom(this.reviews.house.pipe(filter((h) => h.value !== null || h.problem !== null)));
    const words = { title: this.title(), desk: loaded.value?.desk ?? '', legend };
    const { px } = PICTURE_SIZES[size];
    const svg = framedPicture(svgText(drawing), words, PICTURE_SIZES[size], colours);
    return { svg, width: px.width, height: px.height };
  }
}
