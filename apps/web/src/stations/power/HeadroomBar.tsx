interface BarProps {
  readonly label: string;
  readonly parts: readonly { readonly name: string; readonly value: number }[];
  readonly most: number;
  /** What the whole width stands for. */
  readonly scale: number;
  /** Of `most`, how many per cent may be used. */
  readonly percent: number;
  readonly width?: number;
}

const height = 16;

/**
 * An outline as long as what may be taken, filled part by part with what is; a notch where headroom begins, and hatched
 * what is past the end. The figures stand beside it: the picture is for the eye alone.
 */
export function HeadroomBar({ label, parts, most, scale, percent, width = 240 }: BarProps) {
  const x = (value: number): number => Math.round((value / Math.max(scale, 1e-9)) * (width - 2) * 10) / 10 + 1;
  let from = 0;
  const drawn = parts.reduce((sum, { value }) => sum + value, 0);
  return (
    <svg
      className="powerbar"
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={`${label}: ${Math.round((drawn / Math.max(most, 1e-9)) * 100)} % used`}
    >
      <defs>
        <pattern id="powerover" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--stop-wash)" />
          <rect width="2" height="5" fill="var(--stop)" />
        </pattern>
      </defs>
      {parts.map(({ name, value }, i) => {
        const start = from;
        from += value;
        return (
          <rect
            key={`${name} ${i}`}
            x={x(start)}
            y={3}
            width={Math.max(1, x(from) - x(start) - (i < parts.length - 1 ? 1.5 : 0))}
            height={height - 6}
            fill="var(--run)"
            opacity={0.85}
          />
        );
      })}
      {drawn > most && (
        <rect x={x(most)} y={3} width={Math.max(2, x(drawn) - x(most))} height={height - 6} fill="url(#powerover)" />
      )}
      <rect x={0.5} y={2.5} width={Math.max(1, x(most) - 0.5)} height={height - 5} fill="none" stroke="var(--ink)" />
      <line
        x1={x((most * percent) / 100)}
        x2={x((most * percent) / 100)}
        y1={0}
        y2={height}
        stroke="var(--ink)"
        strokeDasharray="2 2"
      />
    </svg>
  );
}
