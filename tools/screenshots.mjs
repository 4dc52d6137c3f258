// npm run screenshots: the demo's main views into docs/screenshots, 1280×800, from a fresh demo in a temporary folder.
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM, CHROMIUM_FLAGS, ensureBrowser } from './browser.mjs';
import { ensureNodeBuild, ensurePackages, ensureWebBuild, root } from './prepare.mjs';

ensurePackages();
ensureBrowser();
await ensureNodeBuild();
await ensureWebBuild();
const { chromium } = await import('playwright-core');

const port = process.env.SEDIMENT_PORT ?? '4879';
const address = `http://127.0.0.1:${port}`;
const given = process.env.SEDIMENT_DATA;
const folder = given ?? mkdtempSync(join(tmpdir(), 'sediment-shots-'));
const server = spawn(process.execPath, [join(root, 'dist/node/main.js'), '--demo'], {
  env: { ...process.env, SEDIMENT_DATA: folder, SEDIMENT_PORT: port },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((resolve) =>
  server.stdout.on('data', (part) => String(part).includes('Sediment is at') && resolve()),
);
for (let quiet = 0; quiet < 3;) {
  await new Promise((resolve) => setTimeout(resolve, 1000));
  quiet = (await (await fetch(`${address}/api/jobs`)).json()).length === 0 ? quiet + 1 : 0;
}

const out = join(root, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const units = await (await fetch(`${address}/api/specimens`)).json();
const idOf = (model) => units.find((u) => u.model === model).id;
const takeOf = async (model, step) => {
  const { runs } = await (await fetch(`${address}/api/specimens/${idOf(model)}`)).json();
  return runs[0].takes.find((t) => t.step === step).id;
};
const show = async (page, selector, hasCharts = true) => {
  const part = page.locator(selector).first();
  await part.waitFor();
  // Charts above it take their height only when they are drawn.
  if (hasCharts) await page.locator('.apexcharts-svg').last().waitFor();
  await part.evaluate((element) => element.scrollIntoView({ block: 'start' }));
};
const clip = (step) => `${address}/api/clips/${step.clip.sha256}/audio`;

/** name, path, theme, and what is done before the picture is taken */
const views = [
  ['ranking-chalk', '/ranking', 'chalk', (page) => page.locator('.row.tested').click()],
  ['blind-pack', `/listening/${await testCalled('Four for the winter desk')}`, 'chalk', answersRead],
  ['bench', '/bench', 'chalk'],
  ['gear', '/gear?kind=microphone', 'chalk'],
  ['live-panel', `/listening/${await testCalled('Sung in the boathouse')}/panel`, 'chalk'],
  ['unit', `/gear/${idOf('Eightfold')}`, 'chalk'],
  ['rules', '/rules', 'chalk', changedRules],
  ['ranking-board', '/ranking?view=board', 'chalk', (page) => page.locator('sd-board-view td.cell').first().waitFor()],
  [
    'review',
    `/reviews/${(await (await fetch(`${address}/api/reviews`)).json()).find((r) => r.publishedOn).id}`,
    'basalt',
  ],
  ['unit-measured', `/gear/${idOf('Bosun')}#measured`, 'basalt'],
  ['take', `/takes/${await takeOf('Beacon', 'speech')}`, 'chalk'],
  ['new-run', '/new-run', 'chalk', dropThree],
  ['compare', `/compare/${await keptSet()}`, 'basalt', heardAndCompared],
  ['scale', '/scale', 'chalk', (page) => page.locator('sd-worth-whisker').first().waitFor()],
  ['listening', await invitation(), 'chalk', (page) => intoAHeat(page, 'At the desk')],
  ['protocol', '/protocols/desk-voice/3', 'chalk', (page) => show(page, 'ol.steps', false)],
  [
    'sums',
    `/sums?sum=drive&microphone=${idOf('Bosun')}&interface=${idOf('Fourfold')}&booster=${idOf('Lift')}&mostGain=54`,
    'chalk',
    (page) => page.locator('sd-level-line svg').waitFor(),
  ],
  ['booth', `/booth/${await boothPlan()}`, 'chalk', recordInBooth],
  ['kinds', '/kinds?kind=microphone', 'chalk', changedKind],
];

/** Rejection counts four times as much: who would move. */
async function changedRules(page) {
  await page.getByRole('button', { name: 'Change these rules' }).click();
  await page.getByLabel('Weight of Rejection').fill('8');
  await page.getByLabel('Weight of Rejection').blur();
  await page.getByRole('button', { name: /^Rejection/ }).click();
  await page.locator('sd-who-moves table').waitFor();
}

/** Answers that came back, as they were read. */
async function answersRead(page) {
  await page
    .getByLabel('Answers', { exact: true })
    .fill(
      'Ines: C > A > D > B > E\nWim: not sure, B?\nsaltmarsh_fm: E > A > B > C > D\nlovely evening\nA 7, B 9, C 6.5, D 8, E 2',
    );
  await page.getByRole('button', { name: 'Read them' }).click();
  await page.getByText('to look at').waitFor();
  await page.evaluate(() => document.querySelector('sd-returned-answers section').scrollIntoView());
}

async function keptSet() {
  const [set] = await (await fetch(`${address}/api/compare/sets`)).json();
  return set.id;
}

async function testCalled(name) {
  const tests = await (await fetch(`${address}/api/listening`)).json();
  return tests.find((t) => t.name === name).id;
}

async function invitation() {
  const page = await (await fetch(`${address}/api/listening/${await testCalled('Four of this winter')}`)).json();
  return `/listen/join/${page.invitation}`;
}

/** A listener on the way through a heat: three placed, one to go. */
async function intoAHeat(page, name) {
  await page.getByLabel('Your name').fill(`${name} ${Date.now()}`);
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByRole('button', { name: 'Skip the check' }).click();
  const hearAll = async () => {
    await page.locator('.clip:enabled').first().waitFor();
    for (const clip of await page.locator('.clip').all()) await clip.click();
  };
  await page.evaluate(() => sessionStorage.setItem('sediment.hearing-reminder', 'read'));
  await hearAll();
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByText(/Put them in order/).waitFor();
  await hearAll();
  await page.getByRole('button', { name: 'B better than A' }).click();
  await page.getByRole('button', { name: 'C behind A' }).click();
}

/** The planned session of the two loans, started. */
async function boothPlan() {
  const plans = await (await fetch(`${address}/api/plans`)).json();
  const plan = plans.find((p) => p.title.startsWith('Two loans'));
  if (plan.status === 'planned') await post(`/api/plans/${plan.id}/status`, { status: 'running' });
  return plan.id;
}

async function post(path, body) {
  const headers = { 'content-type': 'application/json' };
  return (await fetch(address + path, { method: 'POST', headers, body: JSON.stringify(body) })).json();
}

async function openInput(page) {
  await page.getByLabel('Where the sound comes from').click();
  await page.getByRole('option', { name: 'Simulated bench' }).click();
  await page.getByLabel('Count in from three').uncheck();
  await page.getByRole('button', { name: 'Open it' }).click();
  await page.waitForTimeout(800);
  const caution = page.getByRole('button', { name: 'Understood' });
  if ((await caution.count()) > 0) await caution.click();
}

/** A take with a fault, and what the booth says of it. */
async function recordInBooth(page) {
  await openInput(page);
  await page.getByRole('button', { name: 'Input' }).click();
  await page.getByLabel('A car passes').check();
  await page.getByRole('button', { name: 'To the step' }).click();
  await page.locator('body').press('Space');
  await page.locator('.verdict .word').waitFor({ timeout: 40_000 });
  await page.waitForTimeout(1000);
}

/** Clips are there, and every difference is measured and drawn. */
async function heardAndCompared(page) {
  await page.getByText(/All at/).waitFor();
  await page.getByText('still being measured').waitFor();
  await page.getByText('still being measured').waitFor({ state: 'detached', timeout: 60_000 });
  await page.waitForTimeout(1000);
}

/** What of a kind can be changed. */
async function changedKind(page) {
  await page.getByRole('button', { name: 'Change this kind' }).click();
  await page.getByRole('button', { name: 'Add a field' }).waitFor();
}

/** Seven takes of another session under names that say nothing. */
async function dropMisnamed(page) {
  const { runs } = await (await fetch(`${address}/api/specimens/${idOf('Tidemark')}`)).json();
  const files = [];
  for (const [i, take] of [0, 1, 3, 4, 6, 9, 14].map((n) => runs[0].takes[n]).entries()) {
    const buffer = Buffer.from(await (await fetch(clip(take))).arrayBuffer());
    files.push({ name: `REC00${(i * 5) % 7}.wav`, mimeType: 'audio/wav', buffer });
  }
  await page.setInputFiles('input[aria-label="Choose files"]', files);
  await page.locator('.why').nth(6).waitFor({ timeout: 60_000 });
  await page.getByText('Listening to the files').waitFor({ state: 'detached', timeout: 60_000 });
}

async function dropThree(page) {
  const { runs } = await (await fetch(`${address}/api/specimens/${idOf('Sedge')}`)).json();
  const files = [];
  for (const take of runs[0].takes.slice(0, 3)) {
    const name = { speech: 'front voice.wav', silence: 'room noise.wav', rear: 'back.wav' }[take.step];
    files.push({ name, mimeType: 'audio/wav', buffer: Buffer.from(await (await fetch(clip(take))).arrayBuffer()) });
  }
  await page.getByText('What a run holds').waitFor();
  await page.setInputFiles('input[aria-label="Choose files"]', files);
  await page.getByText('stored').nth(2).waitFor();
  await page.getByLabel('Maker').fill('Oarlock');
  await page.getByLabel('Model').fill('Purser');
  await page.getByLabel('Gain of front voice.wav').fill('38');
  await page.getByLabel('Gain of front voice.wav').blur();
  await page.locator('main').evaluate((main) => main.scrollTo(0, 0));
}

const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: CHROMIUM_FLAGS,
});
const only = process.argv.slice(2);
for (const [name, path, theme, act, size] of views) {
  if (only.length > 0 && !only.includes(name)) continue;
  const context = await browser.newContext({ viewport: size ?? { width: 1280, height: 800 }, reducedMotion: 'reduce' });
  const page = await context.newPage();
  await page.addInitScript((chosen) => localStorage.setItem('sediment.theme', chosen), theme);
  await page.goto(address + path);
  await page.waitForTimeout(1500);
  await act?.(page);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(out, `${name}.png`) });
  await context.close();
}
await browser.close();
server.kill('SIGTERM');
if (!given) rmSync(folder, { recursive: true, force: true });
