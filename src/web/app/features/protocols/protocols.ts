import { servedKinds, type Protocol } from '#contracts/protocol';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { compareVersions } from '#core/rules/compare-versions';
import type { Problem } from '#contracts/problem';
import type { ProtocolVersion } from '#contracts/protocol-page';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ProtocolData } from '../../data/protocols';
import { kindName } from '../../ui/format';
import { Hatch } from '../../ui/hatch';
import { ProblemBox } from '../../ui/problem-box';

/** A protocol with its versions, newest first. */
interface ProtocolRow {
  readonly newest: ProtocolVersion;
  readonly versions: readonly ProtocolVersion[];
  readonly runs: number;
  readonly used: string;
  /** What the newest version changed. */
  readonly change: string;
}

/** All protocols: what is recorded of each kind of gear, and how it changed over the years. */
@Component({
  selector: 'sd-protocols',
  imports: [Button, Hatch, ProblemBox, RouterLink],
  templateUrl: './protocols.html',
  styleUrl: './protocols.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Protocols {
  private readonly data = inject(ProtocolData);
  private readonly router = inject(Router);
  private readonly loaded = toSignal(this.data.versions(), { initialValue: LOADING });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  /** Kinds of gear that it serves. */
  protected readonly kindsOf = (protocol: Protocol): string => servedKinds(protocol).map(kindName).join(', ');
  protected readonly rows = computed(() => rowsOf(this.loaded().value ?? []));

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Protocols', link: null }]);
    inject(ScreenKeys).hints.set([{ keys: 'Enter', does: 'Open a protocol' }]);
  }

  /** Takes a protocol in that came as a JSON document. */
  protected async importFile(field: HTMLInputElement): Promise<void> {
    const file = field.files?.item(0);
    field.value = '';
    if (!file) return;
    let document: unknown;
    try {
      document = JSON.parse(await file.text());
    } catch {
      this.problem.set({
        code: 'not-json',
        message: `${file.name} is not a JSON document.`,
        safe: 'Nothing was changed.',
        next: 'Export the protocol again, or look at the file in an editor.',
        details: [],
        truncation: null,
      });
      return;
    }
    this.data.save(document).subscribe({
      next: ({ protocol }) => void this.router.navigate(['/protocols', protocol.id, protocol.version]),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}

export function rowsOf(versions: readonly ProtocolVersion[]): ProtocolRow[] {
  const ids = [...new Set(versions.map((v) => v.protocol.id))];
  return ids.map((id) => {
    const own = versions.filter((v) => v.protocol.id === id).sort((a, b) => b.protocol.version - a.protocol.version);
    const [newest, before] = own;
    const first = own
      .map((v) => v.firstUsed)
      .filter((d) => d !== null)
      .sort()
      .at(0);
    const last = own
      .map((v) => v.lastUsed)
      .filter((d) => d !== null)
      .sort()
      .at(-1);
    const runs = own.reduce((s, v) => s + v.runs, 0);
    return {
      newest,
      versions: own,
      runs,
      used: first && last ? `${runs} ${runs === 1 ? 'run' : 'runs'}, ${first} to ${last}` : 'not used yet',
      change: before ? changeText(before, newest) : '',
    };
  });
}

function changeText(before: ProtocolVersion, after: ProtocolVersion): string {
  const changes = compareVersions(before.protocol, after.protocol);
  const count = (test: (c: (typeof changes)[number]) => boolean): number => changes.filter(test).length;
  const parts = [
    [count((c) => c.comparable === 'yes'), 'comparable'],
    [count((c) => c.comparable === 'no'), 'not comparable'],
    [count((c) => c.comparable === 'open'), 'to be decided'],
    [count((c) => c.kind === 'new'), 'new'],
    [count((c) => c.kind === 'gone'), 'gone'],
  ] as const;
  return parts
    .filter(([n]) => n > 0)
    .map(([n, word]) => `${n} ${word}`)
    .join(', ');
}
