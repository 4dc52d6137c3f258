import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { Tooltip } from 'primeng/tooltip';
import type { Session } from '#contracts/session';
import { dayAt, heightOfDay, layOutCoreLog } from './core-log-layout';
import { hatchUrl } from './format';

/** A pointer that moves less has not been dragged. */
const DRAG_PX = 4;

/** The core log: years of sessions as layers, newest on top. Arrow keys walk it; Enter opens a layer's day. */
@Component({
  selector: 'sd-core-log',
  imports: [RouterLink, Tooltip],
  template: `
    <nav aria-label="Core log: measuring sessions, newest first" (keydown)="walk($event)">
      <div
        class="column"
        [class.axis]="isTimeAxis()"
        [style.height.px]="layout().height"
        (pointerdown)="press($event)"
        (pointermove)="drag($event)"
        (pointerup)="release($event)"
        (pointercancel)="dragged.set(null)"
        (click)="stopAfterDrag($event)"
      >
        @if (mark(); as m) {
          <div class="mark" [style.top.px]="m.top" aria-hidden="true">
            <span class="num">{{ m.day }}</span>
          </div>
        }
        @for (mark of layout().years; track mark.year) {
          <span class="year num" [style.top.px]="mark.top">{{ mark.year }}</span>
        }
        @for (layer of layout().layers; track layer.session.id; let i = $index) {
          <a
            class="layer"
            draggable="false"
            [class.current]="isCurrent(layer.session)"
            [routerLink]="['/days', layer.session.date]"
            [style.top.px]="layer.top"
            [style.height.px]="layer.height"
            [tabindex]="i === active() ? 0 : -1"
            [attr.aria-label]="describe(layer.session)"
            [pTooltip]="describe(layer.session)"
            tooltipPosition="right"
            (focus)="active.set(i)"
          >
            <svg width="100%" height="100%" aria-hidden="true">
              <rect width="100%" height="100%" [attr.fill]="hatch(layer.session.category)" />
            </svg>
          </a>
        }
      </div>
    </nav>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: hidden auto;
      scrollbar-width: none;
    }
    nav {
      padding: 12px 0;
      min-height: 100%;
    }
    .column {
      position: relative;
    }
    .layer {
      position: absolute;
      left: 22px;
      right: 8px;
      display: block;
      background: var(--panel);
      border: 1px solid var(--quiet);
      border-radius: 1px;
    }
    .layer svg {
      display: block;
    }
    .layer:hover,
    .layer:focus-visible {
      border-color: var(--azurite);
      background: var(--azurite-soft);
    }
    .layer:focus-visible {
      outline-offset: 1px;
    }
    .layer.current {
      border-color: var(--realgar);
      box-shadow: inset 3px 0 0 var(--realgar);
    }
    .axis {
      cursor: ns-resize;
      touch-action: none;
      user-select: none;
    }
    .mark {
      position: absolute;
      left: 16px;
      right: 2px;
      z-index: 1;
      border-top: 2px solid var(--realgar);
      pointer-events: none;
    }
    .mark span {
      position: absolute;
      top: 2px;
      left: -14px;
      padding: 0 1px;
      background: var(--panel);
      font-size: 9px;
      line-height: 12px;
      white-space: nowrap;
    }
    .year {
      position: absolute;
      left: 2px;
      width: 16px;
      font-size: 9px;
      line-height: 10px;
      color: var(--quiet);
      writing-mode: vertical-rl;
      transform: rotate(180deg);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CoreLog {
  protected readonly hatch = hatchUrl;
  readonly sessions = input.required<readonly Session[]>();
  /** The unit whose page is open. */
  readonly currentUnit = input<string | null>(null);
  /** The day whose page is open. */
  readonly currentDay = input<string | null>(null);

  /** The log is the time axis of the page: a day is chosen by dragging along it. */
  readonly isTimeAxis = input(false);
  /** The day that is shown; null: today. */
  readonly shownDay = input<string | null>(null);
  /** A day was chosen; null: today. */
  readonly dayChosen = output<string | null>();

  protected readonly dragged = signal<{ readonly day: string | null; readonly from: number; readonly isMoved: boolean } | null>(null); // prettier-ignore
  private justDragged = false;
  protected readonly mark = computed(() => {
    if (!this.isTimeAxis()) return null;
    const dragged = this.dragged();
    const day = dragged?.isMoved ? dragged.day : this.shownDay();
    const top = day === null ? null : heightOfDay(this.layout().layers, day);
    return day === null || top === null ? null : { day, top };
  });

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly space = signal(640);
  protected readonly active = signal(0);
  protected readonly layout = computed(() => layOutCoreLog(this.sessions(), this.space()));

  constructor() {
    afterNextRender(() => {
      const measure = (): void => this.space.set(Math.max(200, this.host.nativeElement.clientHeight - 32));
      new ResizeObserver(measure).observe(this.host.nativeElement);
      measure();
    });
  }

  protected describe(session: Session): string {
    const units = session.units.map((u) => u.name).join('; ');
    return `${session.date}: ${units} (${session.takes} ${session.takes === 1 ? 'take' : 'takes'})`;
  }

  protected isCurrent(session: Session): boolean {
    return session.date === this.currentDay() || session.units.some((u) => u.id === this.currentUnit());
  }

  protected press(event: PointerEvent): void {
    if (this.isTimeAxis() && event.button === 0)
      this.dragged.set({ day: this.shownDay(), from: event.clientY, isMoved: false });
  }

  protected drag(event: PointerEvent): void {
    const dragged = this.dragged();
    if (!dragged) return;
    const isMoved = dragged.isMoved || Math.abs(event.clientY - dragged.from) > DRAG_PX;
    if (!isMoved) return;
    const column = event.currentTarget as HTMLElement;
    column.setPointerCapture(event.pointerId);
    const y = event.clientY - column.getBoundingClientRect().top;
    // Above the log is today.
    this.dragged.set({ ...dragged, isMoved, day: y < 0 ? null : dayAt(this.layout().layers, y) });
  }

  protected release(event: PointerEvent): void {
    const dragged = this.dragged();
    this.dragged.set(null);
    if (!dragged?.isMoved) return;
    event.preventDefault();
    this.justDragged = true;
    this.dayChosen.emit(dragged.day);
  }

  /** The click that ends a drag opens no day. */
  protected stopAfterDrag(event: Event): void {
    if (!this.justDragged) return;
    this.justDragged = false;
    event.preventDefault();
    event.stopPropagation();
  }

  protected walk(event: KeyboardEvent): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const links = this.host.nativeElement.querySelectorAll<HTMLAnchorElement>('a.layer');
    links[Math.max(0, Math.min(links.length - 1, this.active() + step))]?.focus();
  }
}
