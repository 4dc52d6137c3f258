import { Injectable, signal } from '@angular/core';

/** A step of the way to the screen that is shown. */
export interface Crumb {
  readonly label: string;
  readonly link: string | null;
}

@Injectable({ providedIn: 'root' })
export class Breadcrumb {
  readonly crumbs = signal<readonly Crumb[]>([]);
}
