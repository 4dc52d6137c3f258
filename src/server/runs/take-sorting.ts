import { rm } from 'node:fs/promises';
import { createReadStream } from 'node:fs';
import type { z } from 'zod';
import { holdsSweep } from '#core/dsp/exponential-sweep';
import { playKindOf } from '#core/rules/compare-versions';
import { matchTakes, type MatchableTake } from '#core/rules/match-takes';
import { clipSummarySchema } from '#contracts/clip-summary';
import type { channelClipsSchema, Clip } from '#contracts/clip';
import { roleOf, type ProtocolSweep } from '#contracts/protocol';
import {
  newPlanSchema,
  type cutPiecesSchema,
  type cutRequestSchema,
  type FindCuts,
  type foundCutsSchema,
  type MatchProposal,
  type matchRequestSchema,
  type matchStepsSchema,
} from '#contracts/session-plan';
import type { CutClipTask } from '#worker/tasks/cut-clip';
import type { FindCutsTask } from '#worker/tasks/inspect-cuts';
import type { MeasureSweepLikenessTask } from '#worker/tasks/measure-sweep-likeness';
import { temporaryFolder, type ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { findClip, noteChannel, noteOrigin } from './queries/clip';
import { findProtocol } from '../sessions/queries/protocol';
import { usualLengths } from './queries/run';
import { findPlan, findSlot } from '../sessions/queries/session-plan';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from './analysis-queue';
import type { ClipIngest } from './clip-ingest';
import type { WorkerPool } from '../platform/worker-pool';

/** A recorded sweep has at most this much of quiet around it. */
const MOST_AROUND_SWEEP_S = 30;

/** Recordings from elsewhere: which is which step, and one long one cut into takes. */
export class TakeSorting {
  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly queue: AnalysisQueue,
    private readonly ingest: ClipIngest,
  ) {}

  /**
   * Which clip seems to be which step of a turn of a session.
   *
   * @throws Failure `not-found`
   */
  async match(slotId: string, request: z.output<typeof matchRequestSchema>): Promise<MatchProposal[]> {
    const slot = await findSlot(this.database, slotId);
    const row = slot && (await findPlan(this.database, slot.plan_id));
    if (!slot || !row) throw new Failure('not-found', 'There is no such turn in any session.');
    const { protocol, protocolVersion } = newPlanSchema.parse(row.document);
    const steps = slot.steps as readonly string[];
    return this.matchSteps({ ...request, protocol, protocolVersion, steps: [...steps] });
  }

  /**
   * Which clip seems to be which step of a protocol, by what it holds, its name, and the order.
   *
   * @throws Failure `not-found`
   */
  async matchSteps(request: z.output<typeof matchStepsSchema>): Promise<MatchProposal[]> {
    const protocol = await findProtocol(this.database, request.protocol, request.protocolVersion);
    if (!protocol) throw new Failure('not-found', `There is no version ${request.protocolVersion} of a protocol ${request.protocol}.`); // prettier-ignore
    const lengths = await usualLengths(this.database, request.protocol);
    const steps = protocol.steps.filter((s) => request.steps.includes(s.id) && !s.table);
    const clips: Clip[] = [];
    const takes: MatchableTake[] = [];
    for (const { name, clip, gainDb } of request.clips) {
      const { summary, known } = await this.measured(clip);
      clips.push(known);
      takes.push({
        name,
        durationS: known.format.durationS,
        speechS: summary.noise.speech.reduce((s, { startS, endS }) => s + endS - startS, 0),
        integratedLufs: summary.loudness.integratedLufs,
        plosives: summary.plosives.length,
        thirdOctave: summary.thirdOctave,
        sweepLikeness: await this.sweepLikeness(known, protocol.sweep ?? null),
        gainDb,
      });
    }
    const matches = matchTakes(
      takes,
      steps.map((s) => ({
        ...s,
        role: roleOf(s),
        playKind: playKindOf(s),
        usualS: lengths.find((l) => l.step === s.id)?.seconds ?? null,
      })),
    );
    return matches.map((m, i) => ({
      ...m,
      reasons: [...m.reasons],
      doubts: [...m.doubts],
      clip: clips[i],
      integratedLufs: takes[i].integratedLufs,
    }));
  }

  /**
   * Looks for the takes of one long recording; nothing is cut yet.
   *
   * @throws Failure `not-found`; `invalid-request` where no cut was found
   */
  async findCuts({ clip, method, silenceS }: FindCuts): Promise<z.output<typeof foundCutsSchema>> {
    const path = await this.store.verified(clip);
    if (!path) throw new Failure('not-found', 'There is no such clip in the archive.');
    const order = { path, method, silenceS } satisfies FindCutsTask;
    const stretches = await this.pool.run('inspect-cuts', order);
    if (stretches.length === 0) {
      throw new Failure('invalid-request', 'No place to cut was found; try another way, or set the marks by hand.');
    }
    return { stretches: stretches.map(({ startS, endS }) => ({ startS, endS })) };
  }

  /**
   * Cuts a clip into pieces, each a clip of its own; the long one stays.
   *
   * @throws Failure `not-found`; `invalid-request` for a stretch that is not in the clip
   */
  async cut({ clip, stretches }: z.output<typeof cutRequestSchema>): Promise<z.input<typeof cutPiecesSchema>> {
    const path = await this.store.verified(clip);
    const whole = await findClip(this.database, clip);
    if (!path || !whole) throw new Failure('not-found', 'There is no such clip in the archive.');
    const strange = stretches.find((s) => s.endS <= s.startS || s.endS > whole.format.durationS + 0.01);
    if (strange)
      throw new Failure(
        'invalid-request',
        `There is no stretch from ${strange.startS} to ${strange.endS} s in a recording of ${whole.format.durationS.toFixed(2)} s.`,
      );
    const into = await temporaryFolder(this.store);
    try {
      const found = await this.pool.run('cut-clip', { path, stretches, into } satisfies CutClipTask);
      const stem = whole.name.replace(/\.[^.]+$/, '');
      const pieces = [];
      for (const [i, { startS, endS, path: piece }] of found.entries()) {
        const name = `${stem} ${String(i + 1).padStart(2, '0')}.wav`;
        pieces.push({
          startS,
          endS,
          name,
          clip: await this.ingest.ingest(createReadStream(piece), name, { keepPart: false }),
        });
      }
      return { pieces };
    } finally {
      await rm(into, { recursive: true, force: true });
    }
  }

  /**
   * One clip for each channel of a recording: simultaneous takes of several units. The recording stays, and each channel
   * knows it. Asked twice, it is the same clips.
   *
   * @throws Failure `not-found`; `invalid-request` for a recording of one channel
   */
  async splitChannels(sha256: string): Promise<z.input<typeof channelClipsSchema>> {
    const path = await this.store.verified(sha256);
    const whole = await findClip(this.database, sha256);
    if (!path || !whole) throw new Failure('not-found', 'There is no such clip in the archive.');
    const { channels } = whole.format;
    if (channels < 2) throw new Failure('invalid-request', 'The recording has one channel: there is nothing to split.');
    const into = await temporaryFolder(this.store);
    try {
      const paths = await this.pool.run('split-channels', { path, into });
      const clips: Clip[] = [];
      for (const [i, channelPath] of paths.entries()) {
        const channel = i + 1;
        const name = `${whole.name.replace(/\.[^.]+$/, '')} channel ${channel}.wav`;
        const clip = await this.ingest.ingest(createReadStream(channelPath), name, { keepPart: false });
        await noteChannel(this.database, clip.sha256, { sha256, name: whole.name, channel, channels });
        // What came through a codec came through it on every channel.
        if (whole.origin) await noteOrigin(this.database, clip.sha256, { ...whole.origin, name });
        clips.push((await findClip(this.database, clip.sha256)) ?? clip);
      }
      return { clips };
    } finally {
      await rm(into, { recursive: true, force: true });
    }
  }

  /** Null where the protocol plays no sweep, or the clip is too long to be one. */
  private async sweepLikeness(clip: Clip, sweep: ProtocolSweep | null): Promise<number | null> {
    const path = await this.store.verified(clip.sha256);
    const { durationS, sampleRateHz } = clip.format;
    if (!sweep || !path || durationS > sweep.seconds + MOST_AROUND_SWEEP_S || !holdsSweep(sweep, sampleRateHz))
      return null;
    return this.pool.run('measure-sweep-likeness', { path, sweep } satisfies MeasureSweepLikenessTask);
  }

  private async measured(sha256: string) {
    const known = await findClip(this.database, sha256);
    if (!known) throw new Failure('not-found', 'There is no such clip in the archive.');
    const { summary } = await this.queue.ready(sha256);
    return { known, summary: clipSummarySchema.parse(summary) };
  }
}
