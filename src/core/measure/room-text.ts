import type { RoomFigure, RoomReport } from './room-acoustics';

const COLUMNS = ['edt', 't20', 't30', 'c50', 'directToReverberant'] as const;

/**
 * Figures of a room as plain text that spreadsheets read: comment lines that begin with an asterisk, then one line per
 * octave, each figure followed by its standard uncertainty; what was not measured is left empty.
 *
 * @param room - by octave
 * @param title - what it is of, one line
 */
export function roomText(room: Pick<RoomReport, 'octaves'>, title: string): string {
  const cell = (figure: RoomFigure | null): string =>
    figure ? `${figure.value.toFixed(3)}\t${figure.uncertainty.toFixed(3)}` : '\t';
  return [
    `* ${title.replaceAll('\n', ' ')}`,
    '* integrated impulse response (ISO 3382-2), standard uncertainty behind each figure',
    `* octave/Hz\t${['EDT/s', 'T20/s', 'T30/s', 'C50/dB', 'D/R/dB'].map((c) => `${c}\t±`).join('\t')}`,
    ...room.octaves.map((o) => [String(o.centreHz), ...COLUMNS.map((c) => cell(o[c]))].join('\t')),
    '',
  ].join('\n');
}
