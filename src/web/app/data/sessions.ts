import { Injectable, inject } from '@angular/core';
import { filter, map, type Observable } from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { ImportResult } from '#contracts/run-document';
import type { NewRecording, Recording } from '#contracts/recording';
import type { Calibration, NewCalibration, Rig, RigDocument } from '#contracts/rig';
import type {
  CorrectSlotTake,
  DecideTake,
  DueUnit,
  FindCuts,
  FinishSlot,
  HeldSession,
  MatchProposal,
  NewPlan,
  NewSlotTake,
  Plan,
  PlanRow,
  Reading,
  SlotTake,
} from '#contracts/session-plan';
import type { TableReading } from '#contracts/table-reading';
import type { NewUnit } from '#contracts/specimen';
import type { UnitEvent } from '#contracts/session-plan';
import { Api } from './api';
import { live } from './live';
import type { Loaded } from './loaded';
import { Events } from './events';

/** A stretch of a recording, in seconds. */
export interface Stretch {
  readonly startS: number;
  readonly endS: number;
}

/** Sessions, rigs and the booth, as the pages ask for them. */
@Injectable({ providedIn: 'root' })
export class SessionData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);
  private readonly planChanges = this.events.events.pipe(filter((e) => e.type === 'plan'));
  private readonly unitChanges = this.events.events.pipe(filter((e) => e.type === 'specimen'));

  readonly plans: Observable<Loaded<PlanRow[]>> = live(
    () => this.api.call(ENDPOINTS.plans, {}),
    this.planChanges,
    this.events.reconnects,
  );
  readonly due: Observable<Loaded<DueUnit[]>> = live(
    () => this.api.call(ENDPOINTS.due, {}),
    this.unitChanges,
    this.events.reconnects,
  );

  plan(id: string): Observable<Loaded<Plan>> {
    return live(
      () => this.api.call(ENDPOINTS.plan, { params: { id } }),
      this.planChanges.pipe(filter((e) => e.planId === id)),
      this.unitChanges,
      this.events.reconnects,
    );
  }

  held(day: string): Observable<Loaded<HeldSession>> {
    return live(() => this.api.call(ENDPOINTS.held, { params: { day } }), this.unitChanges, this.events.reconnects);
  }

  savePlan(id: string | null, plan: NewPlan): Observable<Plan> {
    return id === null
      ? this.api.call(ENDPOINTS.addPlan, { body: plan })
      : this.api.call(ENDPOINTS.changePlan, { params: { id }, body: plan });
  }

  move(id: string, status: 'running' | 'done' | 'cancelled' | 'planned'): Observable<Plan> {
    return this.api.call(ENDPOINTS.movePlan, { params: { id }, body: { status } });
  }

  seeCaution(id: string, caution: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.seeCaution, { params: { id }, body: { caution } });
  }

  addTake(slot: string, take: NewSlotTake): Observable<SlotTake> {
    return this.api.call(ENDPOINTS.addSlotTake, { params: { id: slot }, body: take });
  }

  decide(take: string, decision: DecideTake): Observable<SlotTake> {
    return this.api.call(ENDPOINTS.decideTake, { params: { id: take }, body: decision });
  }

  fillTable(slot: string, reading: TableReading): Observable<unknown> {
    return this.api.call(ENDPOINTS.fillTable, { params: { id: slot }, body: reading });
  }

  correctTake(take: string, correction: CorrectSlotTake): Observable<SlotTake> {
    return this.api.call(ENDPOINTS.correctSlotTake, { params: { id: take }, body: correction });
  }

  finishSlot(slot: string, finish: FinishSlot): Observable<ImportResult> {
    return this.api.call(ENDPOINTS.finishSlot, { params: { id: slot }, body: finish });
  }

  match(slot: string, clips: { name: string; clip: string; gainDb: number | null }[]): Observable<MatchProposal[]> {
    return this.api.call(ENDPOINTS.matchClips, { params: { id: slot }, body: { clips } });
  }

  findCuts(order: FindCuts): Observable<Stretch[]> {
    return this.api.call(ENDPOINTS.findCuts, { body: order }).pipe(map((r) => r.stretches));
  }

  cut(clip: string, stretches: Stretch[]) {
    return this.api.call(ENDPOINTS.cut, { body: { clip, stretches } }).pipe(map((r) => r.pieces));
  }

  reading(sha256: string): Observable<Reading> {
    return this.api.call(ENDPOINTS.reading, { params: { sha256 } });
  }

  noteEvent(specimen: string, event: UnitEvent): Observable<unknown> {
    return this.api.call(ENDPOINTS.noteEvent, { params: { id: specimen }, body: event });
  }

  rigs(): Observable<Loaded<Rig[]>> {
    return live(() => this.api.call(ENDPOINTS.rigs, {}), this.events.reconnects);
  }

  addUnit(unit: NewUnit): Observable<{ id: string }> {
    return this.api.call(ENDPOINTS.addUnit, { body: unit });
  }

  addRig(rig: RigDocument): Observable<Rig> {
    return this.api.call(ENDPOINTS.addRig, { body: rig });
  }

  calibrate(rig: string, calibration: NewCalibration): Observable<Calibration> {
    return this.api.call(ENDPOINTS.calibrate, { params: { id: rig }, body: calibration });
  }

  recordings(): Observable<Recording[]> {
    return this.api.call(ENDPOINTS.recordings, {});
  }

  startRecording(recording: NewRecording): Observable<Recording> {
    return this.api.call(ENDPOINTS.startRecording, { body: recording });
  }

  finishRecording(id: string, frames: number | null) {
    return this.api.call(ENDPOINTS.finishRecording, { params: { id }, body: { frames } });
  }

  discardRecording(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.discardRecording, { params: { id } });
  }

  benchParts() {
    return this.api.call(ENDPOINTS.benchParts, {});
  }
}
