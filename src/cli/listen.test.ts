import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { runToEnd } from '#server/testing/process';
import { temporaryFolder } from '#server/testing/application';

const sediment = (...args: string[]): ReturnType<typeof runToEnd> => runToEnd('bin/sediment', args);

/** R: data(citations) of BradleyTerry2 1.1, countsToBinomial; which journal was cited by which. */
const CITATIONS = `winner,loser,tie,count
Biometrika,Comm Statist,0,730
Comm Statist,Biometrika,0,33
Biometrika,JASA,0,498
JASA,Biometrika,0,320
Biometrika,JRSS-B,0,221
JRSS-B,Biometrika,0,284
Comm Statist,JASA,0,68
JASA,Comm Statist,0,813
Comm Statist,JRSS-B,0,17
JRSS-B,Comm Statist,0,276
JASA,JRSS-B,0,142
JRSS-B,JASA,0,325
`;

interface Fitted {
  items: { name: string; worth: number; logWorth: number; se: number; place: number; place90: [number, number] }[];
  logLikelihood: number;
  tie: number;
  components: number;
  iterations: number;
}

describe('sediment listen fit', () => {
  const csv = (text: string): string => {
    const path = join(temporaryFolder(), 'answers.csv');
    writeFileSync(path, text);
    return path;
  };

  it('agrees with R to four digits without a penalty', async () => {
    const { code, stdout, stderr } = await sediment('listen', 'fit', '--csv', csv(CITATIONS), '--penalty', '0', '--reference', 'Biometrika', '--json'); // prettier-ignore
    expect({ code, stderr }).toEqual({ code: 0, stderr: '' });
    const { items, tie, components } = JSON.parse(stdout) as Fitted;
    // R: BTm(cbind(win1, win2), j1, j2, data = countsToBinomial(citations)): coefficients and standard errors.
    const known = { 'JRSS-B': [0.2689541, 0.0708300], Biometrika: [0, 0], JASA: [-0.4795698, 0.0605887], 'Comm Statist': [-2.9490725, 0.1025453] } as const; // prettier-ignore
    expect(items.map((i) => i.name)).toEqual(Object.keys(known));
    items.forEach((item, i) => {
      const [ability, se] = Object.values(known)[i];
      expect(item.logWorth).toBeCloseTo(ability, 6);
      expect(item.se).toBeCloseTo(se, 5);
      expect(item.place).toBe(i + 1);
      expect(item.place90[0]).toBeLessThanOrEqual(item.place90[1]);
    });
    expect(items.reduce((s, i) => s + i.worth, 0)).toBeCloseTo(1, 9);
    expect({ tie, components }).toEqual({ tie: 0, components: 1 });
  });

  it('prints a table for people, and counts lines where no count is given', async () => {
    const { stdout } = await sediment('listen', 'fit', '--csv', csv('winner,loser,tie\nA,B,0\nA,B,0\nB,A,1\nC,D,0\n'));
    expect(stdout).toContain('2 connected parts');
    expect(stdout.split('\n')[1]).toMatch(/^1\t\(1–\d\)\t0\.\d+\t.*\tC$/);
  });

  it('says what is wrong, and where', async () => {
    const noMaximum = await sediment('listen', 'fit', '--csv', csv('winner,loser,tie\nA,B,0\n'), '--penalty', '0');
    expect(noMaximum.code).toBe(1);
    expect(noMaximum.stderr).toContain('no finite answer: nothing else was ever preferred to A');
    const wrong = await sediment('listen', 'fit', '--csv', csv('winner,loser,tie\nA,A,0\nA,B,x\n'));
    expect([wrong.code, wrong.stderr.includes('line 2'), wrong.stderr.includes('line 3')]).toEqual([1, true, true]);
    const absent = await sediment('listen', 'fit', '--csv', join(temporaryFolder(), 'none.csv'));
    expect([absent.code, absent.stdout]).toEqual([1, '']);
    expect(absent.stderr).toContain('no such file');
    const nobody = await sediment('listen', 'fit', '--csv', csv(CITATIONS), '--reference', 'Nobody');
    expect(nobody.stderr).toContain('no "Nobody"');
  });
});
