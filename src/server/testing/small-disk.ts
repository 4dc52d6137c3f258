import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { onTestFinished } from 'vitest';

/** Whether this user may mount file systems: root, outside of most containers. */
export const canMount = ((): boolean => {
  const probe = mkdtempSync(join(tmpdir(), 'sediment-mount-'));
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', probe]).status === 0;
  if (mounted) spawnSync('umount', [probe]);
  rmSync(probe, { recursive: true });
  return mounted;
})();

/** A disk of its own, of so many megabytes. */
export interface SmallDisk {
  readonly folder: string;
  /** Leaves so many bytes free. */
  fill(leaving: number): void;
  /** Frees what {@link fill} took. */
  free(): void;
  readOnly(): void;
}

/** Mounts a small disk for a test, and takes it away after it. */
export function smallDisk(megabytes: number): SmallDisk {
  const folder = mkdtempSync(join(tmpdir(), 'sediment-disk-'));
  const run = (command: string, ...args: string[]): void => {
    const { status, stderr } = spawnSync(command, args);
    if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${stderr.toString()}`);
  };
  run('mount', '-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', folder);
  onTestFinished(() => {
    spawnSync('umount', ['--lazy', folder]);
    rmSync(folder, { recursive: true, force: true });
  });
  const filler = join(folder, 'filler');
  return {
    folder,
    fill(leaving) {
      const { bavail, bsize } = statfsSync(folder);
      const bytes = Math.max(0, bavail * bsize - leaving);
      writeFileSync(filler, Buffer.alloc(bytes));
    },
    free: () => rmSync(filler, { force: true }),
    readOnly: () => run('mount', '-o', 'remount,ro', folder),
  };
}
