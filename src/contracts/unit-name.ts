/** What tells a unit from all others. */
interface Named {
  readonly maker: string;
  readonly model: string;
  readonly label: string;
}

/** A unit's name for people. */
export const unitName = ({ maker, model, label }: Named): string => `${maker} ${model} · ${label}`;

/** A unit's name for comparing: parts do not run into each other. */
export const unitKey = ({ maker, model, label }: Named): string => `${maker}/${model}/${label}`;
