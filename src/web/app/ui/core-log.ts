import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  input,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { Tooltip } from 'primeng/tooltip';
import type { Session } from '#contracts/session';
import { layOutCoreLog } from './core-log-layout';
import { hatchUrl } from './format';

/** The core log: years of sessions as layers, newest on top. Arrow keys walk it; Enter opens a layer's day. */
@Component({
  selector: 'sd-core-log',
  imports: [RouterLink, Tooltip],
  template: `
    <nav aria-label="Core log: measuring sessions, newest first" (keydown)="walk($event)">
      <div class="column" [style.height.px]="layout().height">
        @for (mark of layout().years; track mark.year) {
          <span class="year num" [style.top.px]="mark.top">{{ mark.year }}</span>
        }
        @for (layer of layout().layers; track layer.session.id; let i = $index) {
          <a
            class="layer"
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

  protected walk(event: KeyboardEvent): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const links = this.host.nativeElement.querySelectorAll<HTMLAnchorElement>('a.layer');
    links[Math.max(0, Math.min(links.length - 1, this.active() + step))]?.focus();
  }
}
