import { NavigationEnd, NavigationSkipped, NavigationStart } from '@angular/router';
import { describe, expect, it } from 'vitest';
import { foldsMenu } from './menu-folding';

describe('The menu of a narrow screen', () => {
  it('folds when another screen was chosen, and when it is the one that is shown', () => {
    expect(foldsMenu(new NavigationStart(2, '/ranking?kind=microphone'), '/bench')).toBe(true);
    expect(foldsMenu(new NavigationSkipped(2, '/bench', 'ignored'), '/bench')).toBe(true);
  });

  it('stays when a screen that was chosen before arrives', () => {
    expect(foldsMenu(new NavigationEnd(1, '/bench', '/bench'), '/')).toBe(false);
  });

  it('stays when a screen writes into its own address', () => {
    expect(foldsMenu(new NavigationStart(3, '/gear?kind=booster'), '/gear')).toBe(false);
    expect(foldsMenu(new NavigationStart(3, '/gear#prices'), '/gear?kind=booster')).toBe(false);
  });
});
