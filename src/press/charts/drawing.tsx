import type { ComponentChildren } from 'preact';

/** A chart as a vector picture with a name: its own units are pixels at its own size. */
export function Drawing(props: { width: number; height: number; title: string; children: ComponentChildren }) {
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${props.width} ${props.height}`}
      width={props.width}
      height={props.height}
      role="img"
      aria-label={props.title}
    >
      {props.children}
    </svg>
  );
}
