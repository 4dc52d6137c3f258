import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Button } from 'primeng/button';
import { fileName, pngOf, saveFile, svgText } from './save-picture';

/** Takes a drawing and its data out: SVG, PNG, CSV. */
@Component({
  selector: 'sd-export-row',
  imports: [Button],
  template: `
    <span class="quiet small">Export</span>
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
      justify-content: flex-end;
      align-items: center;
      gap: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExportRow {
  readonly title = input.required<string>();
  readonly drawing = input.required<() => SVGSVGElement | null>();
  readonly csv = input.required<() => string>();

  protected svg(): void {
    const drawing = this.drawing()();
    if (drawing) saveFile(`${fileName(this.title())}.svg`, new Blob([svgText(drawing)], { type: 'image/svg+xml' }));
  }

  protected async png(): Promise<void> {
    const drawing = this.drawing()();
    if (drawing) saveFile(`${fileName(this.title())}.png`, await pngOf(drawing));
  }

  protected data(): void {
    saveFile(`${fileName(this.title())}.csv`, new Blob([this.csv()()], { type: 'text/csv' }));
  }
}
