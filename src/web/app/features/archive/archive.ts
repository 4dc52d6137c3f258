import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import type { Problem } from '#contracts/problem';
import { problemOf } from '../../data/api';
import { ArchiveData } from '../../data/archive';
import { CorrectionData } from '../../data/corrections';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { bytesWords, momentDay } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { besideWords, checkedWords, isLittleSpace, notedWords } from './archive-words';
import { UnitCorrections } from '../unit/unit-corrections';

/** What lies in the archive, whether it is what was stored, and which other devices get at it. */
@Component({
  selector: 'sd-archive',
  imports: [Button, ProblemBox, UnitCorrections],
  templateUrl: './archive.html',
  styleUrl: './archive.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Archive {
  protected readonly dayOf = momentDay;
  private readonly data = inject(ArchiveData);
  protected readonly loaded = toSignal(this.data.state, { initialValue: LOADING });
  protected readonly state = computed(() => this.loaded().value ?? null);
  private readonly loadedDevices = toSignal(this.data.devices, { initialValue: LOADING });
  protected readonly devices = computed(() => this.loadedDevices().value ?? []);
  private readonly loadedRemovals = toSignal(inject(CorrectionData).removals(), { initialValue: LOADING });
  protected readonly removals = computed(() => this.loadedRemovals().value ?? []);
  protected readonly removedWords = {
    unit: 'A unit',
    run: 'A run',
    take: 'A take',
    photograph: 'A photograph',
  } as const;
  protected readonly problem = signal<Problem | null>(null);
  protected readonly bytesWords = bytesWords;
  protected readonly checkedWords = checkedWords;
  protected readonly besideWords = besideWords;
  protected readonly isLittleSpace = isLittleSpace;
  protected readonly notedWords = notedWords;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Archive', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected check(): void {
    this.data.check().subscribe({ error: (error: unknown) => this.problem.set(problemOf(error)) });
  }

  protected revoke(id: string): void {
    this.data.revoke(id).subscribe({
      next: () => this.data.askAgain(),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
