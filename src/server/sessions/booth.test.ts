import { describe, expect, it } from 'vitest';
import { rigDocumentSchema } from '#contracts/rig';
import { takeSettingsSchema } from '#contracts/session-plan';
import { Failure } from '../platform/failure';
import { testApplication } from '../testing/application';
import { checksOf, DECIDED, OTHER, planOf, record, UNIT, withHistory } from '../testing/bench-session';

describe('the booth', () => {
  it('keeps takes, makes them a run, and that run is measured like any other', async () => {
    const app = await testApplication();
    await app.rigs.add(rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', inputFullScaleDbu: 9.5 }));
    const plan = await app.plans.add(planOf({ rig: 'Desk' }));
    const [slot] = plan.slots;
    for (const step of ['speech', 'silence', 'rear']) {
      const take = await record(app, slot.id, step);
      expect(take.verdict, JSON.stringify(take.findings)).not.toBe('redo');
      await app.booth.decide(take.id, { state: 'kept', overruled: [], note: `noted at ${step}` });
    }
    const { specimenId } = await app.booth.finish(slot.id, DECIDED);
    await app.queue.idle();
    const { runs } = await app.catalogue.sheet(specimenId);
    expect(runs).toHaveLength(1);
    // What the input of the rig takes goes into the run: without it no figure is in volts.
    expect(runs[0].rig).toBe('Desk, since 2026-01-01');
    expect(await app.database.query('SELECT full_scale_dbu FROM run')).toEqual([{ full_scale_dbu: 9.5 }]);
    expect(runs[0].takes.map((t) => [t.step, t.note])).toEqual([
      ['speech', 'noted at speech'],
      ['silence', 'noted at silence'],
      ['rear', 'noted at rear'],
    ]);
    expect(runs[0].takes[0].settings).toMatchObject({ voice: 'high' });
    // The bench's cardioid at 15 cm: some 10 to 20 dB from behind.
    const rejection = runs[0].measurements.find((m) => m.quantity === 'rearRejection')?.value ?? 0;
    expect(rejection).toBeGreaterThan(5);
    await expect(record(app, slot.id, 'speech', { seed: 'late' })).rejects.toThrow(/have become a run/);
  });

  it('finds out the wrong unit, and names the one that it seems to be', async () => {
    const app = await testApplication();
    await withHistory(app);
    await withHistory(app, OTHER, 'bright');
    const [slot] = (await app.plans.add(planOf())).slots;
    const take = await record(app, slot.id, 'speech', { microphone: 'bright', seed: 'swapped', notedGainDb: 36 });
    const finding = take.findings.find((f) => f.check === 'unit');
    expect(finding?.weight).toBe('redo');
    expect(finding?.what).toContain('Marlfen Fen');
  }, 60_000);

  it('keeps a take that is of no use only with a reason for each finding, and the reason stays with it', async () => {
    const app = await testApplication();
    const [slot] = (await app.plans.add(planOf())).slots;
    const take = await record(app, slot.id, 'speech', { faults: ['clip'] });
    expect(take.verdict).toBe('redo');
    const refusal = app.booth.decide(take.id, { state: 'kept', overruled: [] });
    await expect(refusal).rejects.toBeInstanceOf(Failure);
    const overruled = take.findings.map((f) => ({ check: f.check, reason: 'the limiter is what is tested' }));
    const kept = await app.booth.decide(take.id, { state: 'kept', overruled });
    expect(kept.state).toBe('kept');
    const { specimenId } = await app.booth.finish(slot.id, DECIDED);
    const [run] = (await app.catalogue.sheet(specimenId)).runs;
    expect(run.takes[0].overruled[0]).toMatchObject({ check: 'clipped', reason: 'the limiter is what is tested' });
    expect(run.takes[0].overruled[0].what).toMatch(/Clipped/);
  });

  it('counts attempts, lets a retake replace the take before, and goes on after a restart', async () => {
    const app = await testApplication();
    const plan = await app.plans.add(planOf());
    const [slot] = plan.slots;
    const first = await record(app, slot.id, 'speech', { faults: ['gap'] });
    const second = await record(app, slot.id, 'speech', { seed: 'again' });
    expect([first.attempt, second.attempt]).toEqual([1, 2]);
    await app.booth.decide(second.id, { state: 'kept', overruled: [] });
    const third = await record(app, slot.id, 'speech', { seed: 'once more' });
    await app.booth.decide(third.id, { state: 'kept', overruled: [] });
    const states = (await app.planPages.view(plan.row.id)).slots[0].takes.map((t) => t.state);
    expect(states).toEqual(['retaken', 'retaken', 'kept']);
  });

  it('will not make a run of nothing, nor of a take without its gain', async () => {
    const app = await testApplication();
    const [slot] = (await app.plans.add(planOf())).slots;
    await expect(app.booth.finish(slot.id, DECIDED)).rejects.toThrow(/No take/);
    const take = await record(app, slot.id, 'silence');
    await app.booth.correct(take.id, { settings: takeSettingsSchema.parse({}) });
    await app.booth.decide(take.id, { state: 'kept', overruled: [] });
    await expect(app.booth.finish(slot.id, DECIDED)).rejects.toThrow(/gain of "Silence[^"]*", take 1,/);
    const corrected = await app.booth.correct(take.id, { settings: takeSettingsSchema.parse({ gainDb: 36 }) });
    expect([corrected.state, corrected.settings.gainDb]).toEqual(['kept', 36]);
    expect(corrected.changes.map((c) => c.before.gainDb)).toEqual([36, null]);
    await app.booth.finish(slot.id, DECIDED);
  });

  it('judges a take anew when what was noted with it is corrected, and changes no other take', async () => {
    const app = await testApplication();
    await withHistory(app);
    const plan = await app.plans.add(planOf());
    const [slot] = plan.slots;
    const first = await record(app, slot.id, 'speech', { seed: 'first' });
    const wrong = await record(app, slot.id, 'speech', { seed: 'second', notedGainDb: 46 });
    expect(checksOf(wrong)).toContain('placement');
    const right = await app.booth.correct(wrong.id, { settings: { ...wrong.settings, gainDb: 36 }, note: 'misread' });
    expect([right.verdict, right.findings, right.note]).toEqual(['keep', [], 'misread']);
    const takes = (await app.planPages.view(plan.row.id)).slots[0].takes;
    expect(takes.map((t) => [t.id, t.settings.gainDb])).toEqual([
      [first.id, 36],
      [wrong.id, 36],
    ]);
    expect(takes[0].changes).toEqual([]);
  });

  it('keeps the take that was chosen, though a later one was kept before', async () => {
    const app = await testApplication();
    const plan = await app.plans.add(planOf());
    const [slot] = plan.slots;
    const first = await record(app, slot.id, 'silence', { seed: 'first' });
    const second = await record(app, slot.id, 'silence', { seed: 'second' });
    await app.booth.decide(second.id, { state: 'kept', overruled: [] });
    await app.booth.decide(first.id, { state: 'kept', overruled: [] });
    const states = (await app.planPages.view(plan.row.id)).slots[0].takes.map((t) => [t.attempt, t.state]);
    expect(states).toEqual([
      [1, 'kept'],
      [2, 'retaken'],
    ]);
  });

  it('asks about takes that nobody has decided on, and leaves them beside the run', async () => {
    const app = await testApplication();
    const [slot] = (await app.plans.add(planOf())).slots;
    const kept = await record(app, slot.id, 'silence');
    await app.booth.decide(kept.id, { state: 'kept', overruled: [] });
    await record(app, slot.id, 'speech');
    await expect(app.booth.finish(slot.id, DECIDED)).rejects.toMatchObject({
      code: 'takes-undecided',
      details: [{ field: 'speech', message: 'take 1 is neither kept nor put aside' }],
    });
    const { specimenId } = await app.booth.finish(slot.id, { withUndecided: true });
    const [run] = (await app.catalogue.sheet(specimenId)).runs;
    expect(run.takes.map((t) => t.step)).toEqual(['silence']);
    expect(run.undecided).toMatchObject([
      { step: 'speech', title: 'Spoken passage, in front', attempt: 1, clip: { name: 'speech.wav' } },
    ]);
  });

  it('takes no overruled take for a norm', async () => {
    const app = await testApplication();
    const [slot] = (await app.plans.add(planOf())).slots;
    const short = await record(app, slot.id, 'speech', { playKind: 'phrase', seed: 'short' });
    await app.booth.decide(short.id, {
      state: 'kept',
      overruled: short.findings.map((f) => ({ check: f.check, reason: 'a part is enough' })),
    });
    const whole = await record(app, slot.id, 'speech', { seed: 'whole' });
    expect(checksOf(whole)).not.toContain('passage');
    expect(checksOf(whole)).not.toContain('placement');
  });

  it('fills in tables, refuses cells that are not there, and keeps them with the run', async () => {
    const app = await testApplication();
    const plan = await app.plans.add(planOf({ category: 'interface', protocol: 'input-stage', protocolVersion: 1 }));
    const [slot] = plan.slots;
    const cell = { row: '48 kHz', column: '64', value: 5.4, source: 'typed', clip: null } as const;
    await expect(app.booth.fillTable(slot.id, { step: 'latency', cells: [{ ...cell, column: '63' }] })).rejects.toThrow(
      /no cell/,
    );
    await app.booth.fillTable(slot.id, { step: 'latency', cells: [cell] });
    await app.booth.fillTable(slot.id, { step: 'latency', cells: [cell, { ...cell, column: '128', value: 8.1 }] });
    // A unit of which only tables are filled in is a run, too.
    const other = planOf({ category: 'interface', protocol: 'input-stage', protocolVersion: 1, units: [{ ...OTHER, dueBack: null }] }); // prettier-ignore
    const [tablesOnly] = (await app.plans.add(other)).slots;
    await app.booth.fillTable(tablesOnly.id, { step: 'latency', cells: [cell] });
    const finished = await app.booth.finish(tablesOnly.id, DECIDED);
    expect(
      (await app.catalogue.sheet(finished.specimenId)).runs.map((r) => [
        r.takes.length,
        r.tables.filter((t) => t.cells.length > 0).length,
      ]),
    ).toEqual([[0, 1]]);
    const take = await record(app, slot.id, 'noise-150', { playKind: 'silence' });
    await app.booth.decide(take.id, {
      state: 'kept',
      overruled: take.findings.map((f) => ({ check: f.check, reason: 'x' })),
    });
    const { specimenId } = await app.booth.finish(slot.id, DECIDED);
    const [run] = (await app.catalogue.sheet(specimenId)).runs;
    const filled = run.tables.filter((t) => t.cells.length > 0);
    expect(filled).toMatchObject([{ title: 'Latency by rate and buffer', unit: 'ms' }]);
    expect(filled[0].cells.map((c) => c.value)).toEqual([5.4, 8.1]);
  });
});

describe('sessions', () => {
  it('open and close with the control unit of the rig, shuffle the rest the same way each time, and know what is missing', async () => {
    const app = await testApplication();
    await withHistory(app, OTHER, 'bright');
    const [control] = await app.catalogue.specimens();
    await app.rigs.add(rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', controlUnit: control.id }));
    const units = ['A', 'B', 'C', 'D'].map((label) => ({
      ...UNIT,
      label,
      dueBack: label === 'B' ? '2026-05-01' : null,
    }));
    const plan = await app.plans.add(
      planOf({
        units,
        rig: 'Desk',
        withControl: true,
        randomised: true,
        controlSteps: ['silence', 'speech'],
        needs: [
          { what: 'Cable', isThere: true },
          { what: 'Cells', isThere: false },
        ],
      }),
    );
    expect(plan.slots.map((s) => s.purpose)).toEqual(['opening', 'unit', 'unit', 'unit', 'unit', 'closing']);
    expect([plan.slots[0].unit.model, plan.slots[5].unit.model]).toEqual(['Fen', 'Fen']);
    // In the order of the protocol, whatever order they were ticked in.
    expect(plan.slots[0].steps).toEqual(['speech', 'silence']);
    expect(
      plan.slots
        .slice(1, 5)
        .map((s) => s.unit.label)
        .sort(),
    ).toEqual(['A', 'B', 'C', 'D']);
    expect(plan.row).toMatchObject({ missing: ['Cells'], firstDueBack: '2026-05-01', steps: 2 + 4 * 15 + 2 });
    expect(plan.estimate.minutes).toBeGreaterThan(60);
    // The test's clock stands at 10 May: that is the day of the takes.
    expect((await app.plans.move(plan.row.id, 'running')).plan.day).toBe('2026-05-10');
    await expect(app.plans.change(plan.row.id, planOf())).rejects.toThrow(/has started/);
    await expect(app.plans.move(plan.row.id, 'planned')).rejects.toThrow(/cannot become/);
    await app.plans.seeCaution(plan.row.id, 'phantom');
    expect((await app.planPages.view(plan.row.id)).cautionsSeen).toEqual(['phantom']);
  });

  it('refuse a control unit that is not there, and take one that was noted before it was tested', async () => {
    const app = await testApplication();
    await expect(app.plans.add(planOf({ withControl: true }))).rejects.toMatchObject({
      details: [{ field: 'withControl', message: expect.stringMatching(/no rig is noted/) as string }],
    });
    const control = await app.scoring.addUnit({
      maker: OTHER.maker,
      model: OTHER.model,
      label: OTHER.label,
      category: 'microphone',
    });
    await app.rigs.add(rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', controlUnit: null }));
    const plan = planOf({ withControl: true, rig: 'Desk' });
    await expect(app.plans.add(plan)).rejects.toMatchObject({
      details: [{ message: expect.stringMatching(/"Desk" has no control unit/) as string }],
    });
    await app.rigs.add(rigDocumentSchema.parse({ name: 'Desk', since: '2026-02-01', controlUnit: control.id }));
    expect((await app.plans.add(plan)).slots.map((s) => s.unit.model)).toEqual(['Fen', 'Purser', 'Fen']);
  });

  it('refuses what cannot be: another category, a unit twice, a version that is not there', async () => {
    const app = await testApplication();
    await expect(app.plans.add(planOf({ category: 'booster' }))).rejects.toThrow(/cannot be planned/);
    await expect(
      app.plans.add(
        planOf({
          units: [
            { ...UNIT, dueBack: null },
            { ...UNIT, dueBack: null },
          ],
        }),
      ),
    ).rejects.toThrow(/cannot be planned/);
    await expect(app.plans.add(planOf({ protocolVersion: 9 }))).rejects.toThrow(/cannot be planned/);
  });

  it('tell which units are due again, and why', async () => {
    const app = await testApplication();
    await withHistory(app);
    const [unit] = await app.catalogue.specimens();
    expect((await app.dueTests.list()).flatMap((d) => d.reasons.map((r) => r.kind))).not.toContain('repair');
    const kept = { kind: 'sum', day: '2026-04-19', note: 'Does it?', sum: 'sum=drive&mostGain=54&loss=-3' } as const;
    await app.unitEvents.note(unit.id, kept);
    expect((await app.catalogue.sheet(unit.id)).events).toEqual([kept]);
    await app.unitEvents.note(unit.id, { kind: 'repair', day: '2026-04-20', note: 'new lead', sum: null });
    const [due] = await app.dueTests.list();
    expect(due).toMatchObject({ id: unit.id, reasons: [{ kind: 'repair' }] });
  });
});
