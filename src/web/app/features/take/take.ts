import { pairLink } from '../../ui/pair-link';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, viewChild } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Subject, catchError, debounceTime, merge, of, switchMap, tap } from 'rxjs';
import { quantity, type QuantityId } from '#core/measure/registry';
import { PLAIN_PATHS } from '#contracts/http';
import type { Problem } from '#contracts/problem';
import type { Segments } from '#contracts/segments';
import type { TakePage } from '#contracts/take-page';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { CurveChart } from '../../ui/curve-chart';
import { Figure } from '../../ui/figure';
import { formatNumber } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { takeNotes, takeSetup } from '../unit/take-notes';
import { noiseChart, spectrumChart } from './take-charts';
import {
  KIND_LOOK,
  added,
  edgeSheets,
  moved,
  segmentRows,
  without,
  type SegmentKind,
  type SegmentRow,
} from './segment-list';
import { TakeLens } from './take-lens';
import { NumberField } from '../../ui/field/number-field';

/** A region that is being dragged settles before it is measured. */
const SETTLE_MS = 250;

/** One take under the lens: what is wrong with it first, then what it looks like, then every figure. */
@Component({
  selector: 'sd-take',
  imports: [Button, CurveChart, Figure, NumberField, ProblemBox, RouterLink, TakeLens],
  templateUrl: './take.html',
  styleUrl: './take.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
})
export class Take {
  protected readonly pairLink = pairLink;
  protected readonly edgeSheets = edgeSheets;
  readonly id = input.required<string>();

  private readonly data = inject(CatalogueData);
  private readonly lens = viewChild(TakeLens);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.take(id))), {
    initialValue: LOADING,
  });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly page = computed<TakePage | null>(() => this.loaded().value);
  protected readonly notes = computed(() => {
    const page = this.page();
    return page ? takeNotes(page.take, page.role) : [];
  });
  protected readonly title = computed(() => {
    const page = this.page();
    return page ? `${page.take.stepTitle} of ${page.unit.name}` : 'Take';
  });

  /** What is on the screen before the server has measured it. */
  private readonly draft = signal<Segments | null>(null);
  protected readonly segments = computed<Segments | null>(() => {
    const { chosen, automatic } = this.page()?.segments ?? { chosen: null, automatic: null };
    return this.draft() ?? chosen ?? automatic;
  });
  protected readonly isChosen = computed(
    () => this.draft() !== null || (this.page()?.segments?.chosen ?? null) !== null,
  );
  protected readonly rows = computed(() => {
    const segments = this.segments();
    return segments ? segmentRows(segments) : [];
  });
  protected readonly isMeasuring = signal(false);
  protected readonly actionProblem = signal<Problem | null>(null);
  private readonly edits = new Subject<Segments>();
  private readonly resets = new Subject<null>();

  protected readonly spectrum = computed(() => {
    const spectrum = this.page()?.spectrum;
    return spectrum ? spectrumChart(spectrum) : null;
  });
  protected readonly noise = computed(() => {
    const summary = this.page()?.take.summary;
    return summary && summary.noise.thirdOctave.length > 0 ? noiseChart(summary) : null;
  });
  protected readonly kinds: SegmentKind[] = ['speech', 'silence', 'events'];
  protected readonly look = KIND_LOOK;
  protected readonly setup = takeSetup;
  protected readonly number = formatNumber;
  protected readonly quantityName = (id: QuantityId): string => quantity(id).name;
  protected readonly plain = PLAIN_PATHS;

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() => {
      const page = this.page();
      breadcrumb.crumbs.set([
        { label: 'Gear', link: '/gear' },
        { label: page?.unit.name ?? 'Unit', link: page ? `/gear/${page.unit.id}` : null },
        { label: page?.take.stepTitle ?? 'Take', link: null },
      ]);
    });
    inject(ScreenKeys).hints.set([
      { keys: 'Space', does: 'Play or pause the take' },
      { keys: 'Tab', does: 'Walk the segments; their edges are numbers that can be typed' },
    ]);
    merge(this.edits.pipe(debounceTime(SETTLE_MS)), this.resets)
      .pipe(
        tap(() => this.isMeasuring.set(true)),
        switchMap((segments) =>
          this.data.chooseSegments(this.id(), segments).pipe(
            tap(() => this.actionProblem.set(null)),
            catchError((error: unknown) => {
              this.actionProblem.set(problemOf(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe(() => {
        this.isMeasuring.set(false);
        this.draft.set(null);
      });
  }

  protected change(segments: Segments): void {
    this.draft.set(segments);
    this.edits.next(segments);
  }

  protected edge(row: SegmentRow, startS: number, endS: number): void {
    const [segments, page] = [this.segments(), this.page()];
    if (!segments || !page) return;
    this.change(moved(segments, row, startS, endS, page.take.clip.format.durationS));
  }

  protected remove(row: SegmentRow): void {
    const segments = this.segments();
    if (segments) this.change(without(segments, row));
  }

  protected add(kind: SegmentKind): void {
    const [segments, page] = [this.segments(), this.page()];
    if (!segments || !page) return;
    this.change(added(segments, kind, this.lens()?.cursor() ?? 0, page.take.clip.format.durationS));
  }

  protected automatic(): void {
    this.draft.set(this.page()?.segments?.automatic ?? null);
    this.resets.next(null);
  }

  protected path(template: string): string {
    return template.replace(':id', this.id());
  }

  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (event.key !== ' ' || target.closest('input, button, a, [role="slider"], textarea, select')) return;
    event.preventDefault();
    void this.lens()?.toggle();
  }
}
