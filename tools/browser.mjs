// Debian's Chromium, which the journeys drive. Installed where it is missing and that is possible (root and apt).
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { run } from './prepare.mjs';

export const CHROMIUM = process.env.SEDIMENT_CHROMIUM ?? '/usr/bin/chromium';

/** As root, without a graphics card, and without looking for a network. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export function ensureBrowser() {
  if (existsSync(CHROMIUM)) return;
  const isRoot = process.getuid?.() === 0;
  const hasApt = spawnSync('apt-get', ['--version'], { stdio: 'ignore' }).status === 0;
  if (!isRoot || !hasApt) {
    process.stderr.write(
      `The journeys need Chromium at ${CHROMIUM}. Install Debian's package as root (apt-get install chromium), ` +
        'or set SEDIMENT_CHROMIUM to another one.\n',
    );
    process.exit(1);
  }
  process.stderr.write('Installing Chromium …\n');
  run('apt-get', ['update', '-q'], 'Updating the package lists');
  run('apt-get', ['install', '-y', '-q', '--no-install-recommends', 'chromium'], 'Installing Chromium');
}
