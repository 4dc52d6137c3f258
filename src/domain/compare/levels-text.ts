import { TRUE_PEAK_CEILING_DBTP } from '#core/measure/level-match';
import type { CompareRequest, CompareTable } from '#contracts/compare';

/** A name that every system takes for a file. */
export const fileName = (text: string): string =>
  text
    .normalize('NFKD')
    .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
    .replaceAll(/^-|-$/g, '');

/** What was applied to which clip, for whoever opens an exported comparison. */
export function levelsText(title: string, table: CompareTable, request: CompareRequest): string {
  const how = {
    loudness: `equal loudness${request.loop ? ` over ${request.loop.fromS.toFixed(1)}–${request.loop.toS.toFixed(1)} s of the first` : ''}, ITU-R BS.1770-5, common level ${table.targetLufs?.toFixed(2) ?? '?'} LUFS`,
    gain: 'equal gain of the rig',
    none: 'as recorded',
  }[request.match];
  const lines = table.lanes.map(
    (lane, i) =>
      `${i + 1}\t${lane.unit}\t${lane.date}\t${lane.appliedDb >= 0 ? '+' : ''}${lane.appliedDb.toFixed(2)} dB\t${lane.loudnessLufs?.toFixed(2) ?? 'no'} LUFS before\t${lane.warning ?? ''}`,
  );
  return [
    title,
    `${table.stepTitle}; levels: ${how}; no clip above ${TRUE_PEAK_CEILING_DBTP} dBTP.`,
    'Folder "matched": applied as listed. Folder "original": bit for bit as recorded.',
    '',
    ...lines,
    '',
  ].join('\r\n');
}
