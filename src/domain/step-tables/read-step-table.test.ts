import { describe, expect, it } from 'vitest';
import { readStepTable } from './read-step-table';
import type { StepTable } from './step-table';

const LATENCY: StepTable = {
  rowName: 'Rate',
  rows: ['44.1 kHz', '48 kHz', '96 kHz'],
  columnName: 'Buffer',
  columns: ['64', '128'],
  cell: 'round trip',
  unit: 'ms',
  fromFile: null,
};
const IMPEDANCE: StepTable = {
  rowName: 'Frequency',
  rows: ['20 Hz', '50 Hz', '100 Hz', '1 kHz', '10 kHz'],
  columnName: 'Side',
  columns: ['left', 'right'],
  cell: 'impedance',
  unit: 'Ω',
  fromFile: null,
};
const TIMES: StepTable = { ...LATENCY, rows: ['10 m', '20 m'], columns: ['passed at'], unit: 's' };
const lines = (text: string): string[][] => text.split('\n').map((line) => line.split(';'));
const values = (cells: readonly { row: string; column: string; value: number }[]) =>
  Object.fromEntries(cells.map((c) => [`${c.row}/${c.column}`, c.value]));

describe('reading a table by its names', () => {
  it('takes rows and columns in any order, written by another hand', () => {
    const { cells, notes } = readStepTable(lines('Rate;128;64\n 96KHZ ;4,5;3\n48 kHz;9.2;'), LATENCY, null);
    expect(values(cells)).toEqual({ '96 kHz/128': 4.5, '96 kHz/64': 3, '48 kHz/128': 9.2 });
    expect(notes).toEqual([]);
  });

  it('takes one that lies on its side', () => {
    const { cells } = readStepTable(lines('Buffer;48 kHz;96 kHz\n64;7;4\n128;9;5'), LATENCY, null);
    expect(values(cells)).toEqual({ '48 kHz/64': 7, '48 kHz/128': 9, '96 kHz/64': 4, '96 kHz/128': 5 });
  });

  it('leaves out what the table does not have, and says so', () => {
    const rows = ['8 kHz', '16 kHz', '22 kHz', '32 kHz', '88 kHz', '176 kHz', '192 kHz'];
    const { cells, notes } = readStepTable(
      lines(`x;64\n48 kHz;7\n${rows.map((r) => `${r};1`).join('\n')}`),
      LATENCY,
      null,
    );
    expect(values(cells)).toEqual({ '48 kHz/64': 7 });
    expect(notes).toEqual(['Not of this table, and left out: 8 kHz, 16 kHz, 22 kHz, 32 kHz, 88 kHz and 2 more.']);
  });

  it('tells a value that is no number, by line and column, and takes the others', () => {
    const { cells, notes } = readStepTable(lines('-;passed at\n10 m;soon\n20 m;12 s'), TIMES, null);
    expect(values(cells)).toEqual({ '20 m/passed at': 12 });
    expect(notes).toHaveLength(1);
    expect(notes[0]).toMatch(/^Line 2, passed at: .*soon/);
  });

  it('leaves cells empty that are, or hold a dash', () => {
    const { cells, notes } = readStepTable(lines('-;passed at\n10 m;\n20 m;–'), TIMES, null);
    expect([cells, notes]).toEqual([[], []]);
  });

  it('takes the first of two lines of one name, and says so', () => {
    const { cells, notes } = readStepTable(lines('10 m;3\n10 m;4\n20 m;9'), TIMES, null);
    expect(values(cells)).toEqual({ '10 m/passed at': 3, '20 m/passed at': 9 });
    expect(notes).toEqual(['Line 2: “10 m” stands there twice; the first one was taken.']);
  });

  it('does not take −20 for 20', () => {
    const table = { ...TIMES, rows: ['-20 dB', '20 dB'] };
    expect(values(readStepTable(lines('−20 dB;1\n20 dB;2'), table, null).cells)).toEqual({
      '-20 dB/passed at': 1,
      '20 dB/passed at': 2,
    });
  });

  it('knows a rate by its number alone, and no other row by it', () => {
    const { cells, notes } = readStepTable(lines('x;64\n48000;7\n48;1\n4800;1'), LATENCY, null);
    expect(values(cells)).toEqual({ '48 kHz/64': 7 });
    expect(notes).toEqual(['Not of this table, and left out: 48, 4800.']);
    const metres = readStepTable(lines('10;3\n20 m;9'), TIMES, null);
    expect(values(metres.cells)).toEqual({ '20 m/passed at': 9 });
  });

  it('passes over a first line of words, but not over a row that it does not know', () => {
    expect(readStepTable(lines('Distance;Time\n10 m;3'), TIMES, null)).toEqual({
      cells: [{ row: '10 m', column: 'passed at', value: 3 }],
      notes: [],
    });
    expect(readStepTable(lines('10 m;3\nDistance;Time'), TIMES, null).notes).toHaveLength(1);
    expect(readStepTable(lines('Hall;30 m\n10 m;3'), TIMES, null).notes).toEqual([
      'Not of this table, and left out: Hall.',
    ]);
    expect(readStepTable(lines('31 m;-\n10 m;3'), TIMES, null).notes).toEqual([
      'Not of this table, and left out: 31 m.',
    ]);
  });

  it('takes a column that is named twice the first time, and the lines as long as they are', () => {
    const { cells } = readStepTable(lines('Rate;64;64;128\n48 kHz;7;8\n96 kHz;4;5;6'), LATENCY, null);
    expect(values(cells)).toEqual({ '48 kHz/64': 7, '96 kHz/64': 4, '96 kHz/128': 6 });
    const aside = readStepTable(lines('Buffer;48 kHz;96 kHz\n64;7\n128;9;5'), LATENCY, null);
    expect(values(aside.cells)).toEqual({ '48 kHz/64': 7, '48 kHz/128': 9, '96 kHz/128': 5 });
  });

  it('reads ohms and kilohms, and no other unit', () => {
    const table = { ...IMPEDANCE, rowName: 'Load', rows: ['open', 'short', 'half'], columns: ['voltage'] };
    const { cells, notes } = readStepTable(lines('open;1,5 kΩ\nshort;16 ohm\nhalf;2 V'), table, null);
    expect(values(cells)).toEqual({ 'open/voltage': 1500, 'short/voltage': 16 });
    expect(notes[0]).toMatch(/^Line 3, voltage: “V” is not a unit/);
    expect(readStepTable(lines('10 m;3 kΩ'), TIMES, null).cells).toEqual([]);
  });

  it('does not guess where one column of numbers could be two, nor where two could be one', () => {
    expect(readStepTable(lines('20 Hz;16\n1 kHz;18'), IMPEDANCE, null).cells).toEqual([]);
    expect(readStepTable(lines('10 m;3;4\n20 m;5'), TIMES, null).cells).toEqual([]);
    expect(values(readStepTable(lines('10 m;3;4\n20 m;5'), TIMES, 'passed at').cells)).toEqual({
      '10 m/passed at': 3,
      '20 m/passed at': 5,
    });
  });

  it('does not guess which column is which', () => {
    const { cells, notes } = readStepTable(lines('20 Hz;16;17\n1 kHz;18;19'), IMPEDANCE, null);
    expect(cells).toEqual([]);
    expect(notes[0]).toContain('which column is which: left, right');
  });

  it('says that there is nothing in nothing', () => {
    expect(readStepTable(lines(' ; \n'), TIMES, null)).toEqual({ cells: [], notes: ['There is nothing in it.'] });
  });
});

describe('reading a table from a measured curve', () => {
  it('takes lines of the very frequency as they stand', () => {
    const { cells, notes } = readStepTable(lines('20;16.123\n50;16.5\n1000;17.25\n10 kHz;33'), IMPEDANCE, 'left');
    expect(values(cells)).toEqual({ '20 Hz/left': 16.123, '50 Hz/left': 16.5, '1 kHz/left': 17.25, '10 kHz/left': 33 });
    expect(notes).toEqual(['left: nothing near enough for 100 Hz; its lines go from 20 Hz to 10 kHz.']);
  });

  it('reads between neighbours on the logarithm of the frequency: halfway by ratio is halfway by value', () => {
    // √(90·(100²/90)) = 100: the row stands at the geometric mean of its neighbours.
    const { cells, notes } = readStepTable(
      [
        ['90', '16'],
        [String(100 ** 2 / 90), '20'],
      ],
      IMPEDANCE,
      'right',
    );
    expect(values(cells)).toEqual({ '100 Hz/right': 18 });
    expect(notes[0]).toBe('right: 100 Hz read between two lines, to 4 digits.');
  });

  it('reads nominal thirds of an octave (ISO 266), and nothing further apart', () => {
    const table = { ...IMPEDANCE, rows: ['140 Hz', '1.4 kHz'], columns: ['left'] };
    const { cells, notes } = readStepTable(lines('125;10\n160;12\n1250;10\n1700;12'), table, 'left');
    // 10 + 2·log(140/125)/log(160/125), by hand.
    expect(values(cells)).toEqual({ '140 Hz/left': 10.92 });
    expect(notes).toContain('left: nothing near enough for 1.4 kHz; its lines go from 125 Hz to 1.7 kHz.');
  });

  it('is told from one number over one frequency, which is a table', () => {
    const table = { ...IMPEDANCE, rows: ['1 kHz'], columns: ['left'] };
    expect(readStepTable(lines('1 kHz;32'), table, null)).toEqual({ cells: [{ row: '1 kHz', column: 'left', value: 32 }], notes: [] }); // prettier-ignore
    expect(readStepTable(lines('999;32'), table, null).notes).toEqual(['Not of this table, and left out: 999.']);
    // Rows of which some are no frequencies are names.
    const mixed = { ...IMPEDANCE, rows: ['100 Hz', 'all'], columns: ['left'] };
    expect(readStepTable(lines('95;1\n105;2'), mixed, null).cells).toEqual([]);
  });

  it('does not go beyond the ends of the curve, nor wait for its order', () => {
    const table = { ...IMPEDANCE, columns: ['left'] };
    const { cells } = readStepTable(lines('120;20\n95;10\n52;5'), table, 'left');
    expect(Object.keys(values(cells))).toEqual(['100 Hz/left']);
  });

  it('says once what is to be said of both sides', () => {
    const { notes } = readStepTable(lines('f;left;right\n45;16;17\n55;16;18\n18245.61;16;17'), IMPEDANCE, null);
    expect(notes).toEqual([
      'left, right: 50 Hz read between two lines, to 4 digits.',
      'left, right: nothing near enough for 20 Hz, 100 Hz, 1 kHz, 10 kHz; its lines go from 45 Hz to 18.2 kHz.',
    ]);
  });

  it('passes over a heading, names broken lines, and takes both sides at once where they are named', () => {
    const text = '* measured on the bench\nFreq (Hz);right;left;Phase\n20;17;16;1\noops;1;1\n1,0 kHz;19;18;2';
    const { cells, notes } = readStepTable(lines(text), IMPEDANCE, null);
    expect(values(cells)).toEqual({ '20 Hz/left': 16, '20 Hz/right': 17, '1 kHz/left': 18, '1 kHz/right': 19 });
    expect(notes[0]).toBe('No frequency, and left out: line 4.');
  });

  it('takes every comma for a decimal sign once one of them can be nothing else, and no point stands anywhere', () => {
    const { cells } = readStepTable(lines('20;16,123\n50;16,5'), IMPEDANCE, 'left');
    expect(values(cells)).toEqual({ '20 Hz/left': 16.123, '50 Hz/left': 16.5 });
    const doubtful = readStepTable(lines('20;16,123\n50;16.5'), IMPEDANCE, 'left');
    expect(values(doubtful.cells)).toEqual({ '50 Hz/left': 16.5 });
    expect(doubtful.notes[0]).toMatch(/^Line 1, left: “16,123” can be/);
  });

  it('reads nothing between rates of sampling, nor between bands', () => {
    const rates = readStepTable(lines('44.1 kHz;3\n50 kHz;4'), { ...TIMES, rowName: 'Rate', rows: ['48 kHz'] }, null);
    expect(rates.cells).toEqual([]);
    const octaves = { ...TIMES, rowName: 'Octave', rows: ['125 Hz'] };
    expect(readStepTable(lines('120;3\n130;4'), octaves, null).cells).toEqual([]);
  });

  it('tells eight things, and how many more there are', () => {
    const { notes } = readStepTable(
      lines(Array.from({ length: 12 }, (_, i) => `${i + 20};x`).join('\n')),
      IMPEDANCE,
      'left',
    );
    expect(notes).toHaveLength(9);
    expect(notes[8]).toBe('And 5 more of the kind.');
  });

  it('does not take 1,000 for a frequency: it can be two of them', () => {
    const { notes } = readStepTable(lines('20;16\n1,000;17\n50;18'), IMPEDANCE, 'left');
    expect(notes[0]).toBe('No frequency, and left out: line 2.');
  });
});
