import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  HostListener,
  afterNextRender,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Button } from 'primeng/button';
import { ProgressBar } from 'primeng/progressbar';
import { filter, map, startWith } from 'rxjs';
import { unitName } from '#contracts/unit-name';
import { DIALOG } from './ui/dialog/dialog';
import { Breadcrumb } from './data/breadcrumb';
import { CatalogueData } from './data/catalogue';
import { LOADING } from './data/loaded';
import { Events } from './data/events';
import { GLOBAL_KEYS, ScreenKeys, isTyping } from './data/keys';
import { foldsMenu } from './menu-folding';
import { paletteActions } from './palette-actions';
import { ThemeChoice } from './data/theme';
import { keepCellsLabelled } from './ui/cell-labels';
import { CoreLog } from './ui/core-log';
import { Hatches } from './ui/hatches';
import { HearingDialog } from './ui/hearing-dialog';
import { Palette, type PaletteEntry } from './ui/palette';

interface Place {
  readonly label: string;
  readonly link: string;
  readonly does: string;
}

/** Screens by what is done there, in the order of the work. */
const PLACES: readonly Place[] = [
  { label: 'Bench', link: '/bench', does: 'See what is next' },
  { label: 'Protocols', link: '/protocols', does: 'See what is recorded, and how' },
  { label: 'Rigs', link: '/rigs', does: 'Note the chain and its calibrations' },
  { label: 'Sessions', link: '/sessions', does: 'Plan, run and resume sessions' },
  { label: 'New run', link: '/new-run', does: 'Bring in takes' },
  { label: 'Gear', link: '/gear', does: 'Look up a unit' },
  { label: 'Compare', link: '/compare', does: 'Hear clips side by side at equal loudness' },
  { label: 'Listening', link: '/listening', does: 'Blind tests: set up, run, reveal' },
  { label: 'Scale', link: '/scale', does: 'All answers as one scale; place a new unit' },
  { label: 'Kinds', link: '/kinds', does: 'See and change what a sheet and a list of each kind hold' },
  { label: 'Rules', link: '/rules', does: 'See and change by what each kind is scored' },
  { label: 'Ranking', link: '/ranking', does: 'See where it stands' },
  { label: 'Reviews', link: '/reviews', does: 'Write, freeze and hand out what you say of a unit' },
  { label: 'Sums', link: '/sums', does: 'Gain, loudness, loading, time: small calculations' },
  { label: 'Archive', link: '/archive', does: 'See whether everything is there' },
];

/** The frame: core log, navigation, header line, page. */
@Component({
  selector: 'sd-frame',
  imports: [
    Button,
    CoreLog,
    DIALOG,
    Hatches,
    HearingDialog,
    Palette,
    ProgressBar,
    RouterLink,
    RouterLinkActive,
    RouterOutlet,
  ],
  templateUrl: './frame.html',
  styleUrl: './frame.css',
  host: { '[class.bare]': 'isBare()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Frame {
  private readonly router = inject(Router);
  private readonly catalogue = inject(CatalogueData);
  protected readonly events = inject(Events);
  protected readonly theme = inject(ThemeChoice);
  private readonly screenKeys = inject(ScreenKeys);
  protected readonly crumbs = inject(Breadcrumb).crumbs;

  protected readonly places = PLACES;
  private readonly page = viewChild.required<ElementRef<HTMLElement>>('page');
  private readonly stopLabelling = signal<(() => void) | null>(null);
  /** On a narrow screen the menu folds away. */
  protected readonly menuOpen = signal(false);
  protected readonly paletteOpen = signal(false);
  protected readonly keysOpen = signal(false);
  protected readonly hints = computed(() => [...this.screenKeys.hints(), ...GLOBAL_KEYS]);

  private readonly specimens = toSignal(this.catalogue.specimens, { initialValue: LOADING });
  private readonly loadedSessions = toSignal(this.catalogue.sessions, { initialValue: LOADING });
  protected readonly sessions = computed(() => this.loadedSessions().value ?? []);

  private readonly url = toSignal(
    this.router.events.pipe(
      filter((e) => e instanceof NavigationEnd),
      map((e) => e.urlAfterRedirects),
      startWith(this.router.url),
    ),
    { initialValue: '' },
  );
  /** The booth has the whole screen to itself. */
  protected readonly isBare = computed(() => this.url().startsWith('/booth/'));
  protected readonly currentDay = computed(() => /^\/days\/([\d-]+)/.exec(this.url())?.[1] ?? null);
  protected readonly currentUnit = computed(() => /^\/gear\/(\d+)/.exec(this.url())?.[1] ?? null);

  /** The ranking looks back along the core log. */
  protected readonly isRanking = computed(() => this.url().startsWith('/ranking'));
  protected readonly shownDay = computed(() => this.router.parseUrl(this.url()).queryParamMap.get('on'));

  protected showDay(on: string | null): void {
    void this.router.navigate(['/ranking'], { queryParams: { on }, queryParamsHandling: 'merge' });
  }

  protected readonly running = computed(() => this.events.jobs().filter((j) => j.state === 'running'));
  protected readonly jobText = computed(() => {
    const jobs = this.running();
    if (jobs.length === 0) return '';
    const [first] = jobs;
    const count = first.total > 1 ? ` ${Math.floor(first.done)} of ${first.total}` : '';
    return first.label + count + (jobs.length > 1 ? `, and ${jobs.length - 1} more` : '');
  });
  protected readonly jobShare = computed(() => {
    const [first] = this.running();
    return first ? Math.round((100 * first.done) / Math.max(1, first.total)) : 0;
  });

  protected readonly entries = computed<PaletteEntry[]>(() => [
    ...PLACES.map((p) => ({ label: p.label, hint: p.does, run: () => void this.router.navigateByUrl(p.link) })),
    { label: 'Switch theme', hint: 'Chalk or basalt', run: () => this.theme.toggle() },
    { label: 'Show keys', hint: 'Keys of this screen', run: () => this.keysOpen.set(true) },
    ...(this.specimens().value ?? []).map((s) => ({
      label: unitName(s),
      hint: s.place === null ? 'Unit' : `Unit, place ${s.place}`,
      run: () => void this.router.navigate(['/gear', s.id]),
    })),
    ...this.actions(),
  ]);
  /** Made when the palette is opened: a large archive has thousands. */
  private readonly actions = computed<PaletteEntry[]>(() =>
    this.paletteOpen()
      ? paletteActions(this.specimens().value ?? []).map(({ label, hint, to }) => ({
          label,
          hint,
          run: () => ('page' in to ? void this.router.navigateByUrl(to.page) : window.location.assign(to.file)),
        }))
      : [],
  );

  constructor() {
    afterNextRender(() => this.stopLabelling.set(keepCellsLabelled(this.page().nativeElement)));
    inject(DestroyRef).onDestroy(() => this.stopLabelling()?.());
    // Whoever has chosen a screen wants to see it.
    this.router.events
      .pipe(
        filter((event) => foldsMenu(event, this.router.url)),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.menuOpen.set(false));
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      this.paletteOpen.set(true);
    } else if (event.key === 'Escape' && this.menuOpen()) {
      this.menuOpen.set(false);
    } else if (event.key === '?' && !isTyping(event)) {
      event.preventDefault();
      this.keysOpen.set(true);
    }
  }
}
