import { NavigationSkipped, NavigationStart, type Event } from '@angular/router';

const pathOf = (url: string): string => url.split(/[?#]/, 1)[0];

/**
 * Whether the menu of a narrow screen folds away: when a screen was chosen, also the one that is shown.
 * Not when a screen that was chosen before has arrived (who has opened the menu meanwhile wants the menu),
 * and not when a screen only writes what it shows into its own address.
 */
export function foldsMenu(event: Event, shown: string): boolean {
  if (event instanceof NavigationSkipped) return true;
  return event instanceof NavigationStart && pathOf(event.url) !== pathOf(shown);
}
