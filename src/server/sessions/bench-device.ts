import { BENCH_FAULTS, type BenchParts, type BenchTake } from '#contracts/bench';
import { BENCH_INTERFACES, BENCH_MICROPHONES, BENCH_ROOMS, BENCH_TALKERS, type BenchPart } from '#rig/bench-parts';
import { FAULT_NAMES } from '#rig/faults';
import type { RenderBenchTakeTask } from '#worker/tasks/render-bench-take';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';

/** The simulated bench: a stand-in for talker, room, microphone and interface. */
export class BenchDevice {
  constructor(
    private readonly pool: WorkerPool,
    private readonly speechFolder: string,
  ) {}

  parts(): BenchParts {
    const choices = (shelf: readonly BenchPart<unknown>[]) => shelf.map(({ id, name }) => ({ id, name }));
    return {
      talkers: choices(BENCH_TALKERS),
      rooms: choices(BENCH_ROOMS),
      microphones: choices(BENCH_MICROPHONES),
      interfaces: choices(BENCH_INTERFACES),
      faults: BENCH_FAULTS.map((id) => ({ id, name: FAULT_NAMES[id] })),
    };
  }

  /**
   * A take as a WAV file.
   *
   * @throws Failure `invalid-request` for a part that is not on the shelf
   */
  async take(take: BenchTake): Promise<Uint8Array> {
    const parts = this.parts();
    for (const [shelf, id] of [
      [parts.talkers, take.talker],
      [parts.rooms, take.room],
      [parts.microphones, take.microphone],
      [parts.interfaces, take.interface],
    ] as const) {
      if (!shelf.some((p) => p.id === id)) throw new Failure('invalid-request', `The simulated bench has no "${id}".`);
    }
    return this.pool.run('render-bench-take', {
      take,
      speechFolder: this.speechFolder,
    } satisfies RenderBenchTakeTask);
  }
}
