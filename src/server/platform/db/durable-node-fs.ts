import { fsyncSync, writeSync } from 'node:fs';
import type { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import { isDiskFull } from '../archive/disk-full';

type EmscriptenOptions = Parameters<NodeFS['init']>[1];

interface OpenFile {
  readonly nfd: number;
  readonly path: string;
}

/** What the wasm runtime offers here; PGlite does not type it. */
interface RuntimeFiles {
  readonly tryFSOperation: <T>(operation: () => T) => T;
  readonly stream_ops: {
    fsync?: (stream: OpenFile) => number;
    write: (stream: OpenFile, buffer: Int8Array, offset: number, length: number, position: number) => number;
  };
}

/** Who wants to know, and who can help. */
export interface DurableFsHooks {
  /** Told of each flush, with the path inside the cluster. */
  readonly onFlush?: (path: string) => void;
  /** The disk is full: frees some of it. @returns whether writing can be tried once more */
  readonly onFull?: () => boolean;
}

/**
 * PGlite's folder on disk, with an `fsync` that reaches the disk and writes that are whole. The runtime asks the file
 * system to flush and goes on where it has no such operation, which Node's one has not: every commit would be in
 * memory only until the system writes it by itself, and a power cut would take it back.
 *
 * A log that cannot be written ends PostgreSQL, and in this process hangs it; so there is a reserve on the disk that
 * is given up first.
 */
export class DurableNodeFs extends NodeFS {
  constructor(
    folder: string,
    private readonly hooks: DurableFsHooks = {},
  ) {
    super(folder);
  }

  override async init(pg: PGlite, options: EmscriptenOptions): Promise<{ emscriptenOpts: EmscriptenOptions }> {
    const { emscriptenOpts } = await super.init(pg, options);
    const addOperations = (module: unknown): void => {
      const files = (module as { NODEFS: RuntimeFiles }).NODEFS;
      files.stream_ops.fsync = (stream) => {
        files.tryFSOperation(() => fsyncSync(stream.nfd));
        this.hooks.onFlush?.(stream.path);
        return 0;
      };
      files.stream_ops.write = (stream, buffer, offset, length, position) =>
        files.tryFSOperation(() => this.writeWhole(stream.nfd, buffer, offset, length, position));
    };
    const preRun = emscriptenOpts.preRun ?? [];
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...preRun, addOperations] } };
  }

  private writeWhole(descriptor: number, buffer: Int8Array, offset: number, length: number, position: number): number {
    let written = 0;
    while (written < length) {
      try {
        written += writeSync(descriptor, buffer, offset + written, length - written, position + written);
      } catch (error) {
        if (!isDiskFull(error) || !this.hooks.onFull?.()) throw error;
      }
    }
    return written;
  }
}
