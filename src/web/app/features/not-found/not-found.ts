import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'sd-not-found',
  imports: [RouterLink],
  template: `
    <h1>There is no such screen</h1>
    <p>The address may be old. Nothing is lost: everything is in <a routerLink="/gear">Gear</a>.</p>
  `,
  styles: ':host { display: grid; gap: 8px; padding: 24px; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NotFound {}
