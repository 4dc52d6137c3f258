import type { Protocol } from '#contracts/protocol';
import type { RunDocumentInput } from '#contracts/run-document';
import type { NewPlan, PlannedUnit, SlotTake, TakeSettings } from '#contracts/session-plan';
import type { TableReading } from '#contracts/table-reading';

type RunTake = RunDocumentInput['takes'][number];

/** A take of a session that was kept. */
export interface KeptTake {
  readonly step: string;
  readonly attempt: number;
  readonly container: string;
  readonly sha256: string;
  readonly settings: TakeSettings;
  readonly findings: SlotTake['findings'];
  readonly overruled: SlotTake['overruled'];
  readonly note: string;
}

/** One unit's turn in a session, when it is done. */
export interface FinishedSlot {
  readonly plan: NewPlan;
  readonly protocol: Protocol;
  readonly unit: PlannedUnit;
  readonly purpose: 'opening' | 'unit' | 'closing';
  readonly takes: readonly KeptTake[];
  readonly tables: readonly TableReading[];
  /** Of the rig's input on that day, in dBu; null where it is not known. */
  readonly fullScaleDbu: number | null;
}

/**
 * The run document that the kept takes of a slot amount to, and the hash behind each file that it names. What was not
 * set at the take is as the step says.
 */
export function runOfSlot({ plan, protocol, unit, purpose, takes, tables, fullScaleDbu }: FinishedSlot): {
  document: RunDocumentInput;
  clips: Record<string, string>;
} {
  const clips: Record<string, string> = {};
  const runTakes = takes.map(
    ({ step: id, attempt, container, sha256, settings, findings, overruled, note }): RunTake => {
      const step = protocol.steps.find((s) => s.id === id);
      const file = `${id}-${attempt}.${container === 'flac' ? 'flac' : 'wav'}`;
      clips[file] = sha256;
      const distanceM = settings.distanceM ?? step?.distanceM ?? null;
      const angleDeg = settings.angleDeg ?? step?.angleDeg ?? null;
      return {
        step: id,
        file,
        gainDb: settings.gainDb,
        ...(distanceM === null ? {} : { distanceM }),
        ...(angleDeg === null ? {} : { angleDeg }),
        ...levelsOf(settings),
        ...(note === '' ? {} : { note }),
        settings: furtherSettings(settings),
        overruled: overruled.map((o) => ({ ...o, what: findings.find((f) => f.check === o.check)?.what ?? '' })),
      };
    },
  );
  return {
    clips,
    document: {
      format: 'sediment-run/1',
      specimen: { maker: unit.maker, model: unit.model, label: unit.label, category: plan.category },
      date: plan.day,
      protocol: plan.protocol,
      protocolVersion: plan.protocolVersion,
      source: unit.source,
      ...(plan.rig === null ? {} : { rig: plan.rig }),
      ...(fullScaleDbu === null ? {} : { inputFullScaleDbu: fullScaleDbu }),
      purpose,
      takes: runTakes,
      tables: [...tables],
    },
  };
}

/** Levels and speeds of the take's own; what was not noted is as the step says. */
const levelsOf = ({ levelDbSpl, levelDbu, windSpeedMs }: TakeSettings): Partial<RunTake> => ({
  ...(levelDbSpl === null ? {} : { levelDbSpl }),
  ...(levelDbu === null ? {} : { levelDbu }),
  ...(windSpeedMs === null ? {} : { windSpeedMs }),
});

/** Settings that a run document has no field of its own for. */
function furtherSettings(settings: TakeSettings): Record<string, string | boolean> {
  const { dial, pad, lowCut, pattern, phantom, voice, place, mount, processing } = settings;
  const all = { dial, pad, lowCut, pattern, phantom, voice, place, mount, processing };
  return Object.fromEntries(
    Object.entries(all).filter((e): e is [string, string | boolean] => e[1] !== null && e[1] !== ''),
  );
}
