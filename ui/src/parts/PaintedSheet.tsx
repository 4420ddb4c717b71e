import type { Schemas } from "../api/client";
import { Sector } from "../drawing/Ring";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";

/** A sheet as it was painted: what was read at full width, what is only computed thinner. */
export function PaintedSheet({
  places,
  kind,
  width,
  height,
  label,
  size,
  marked = true,
}: {
  places: Schemas["ShelfPlace"][];
  kind: string;
  width: number;
  height: number;
  label: string;
  size: number;
  /** Whether what was not read is drawn thinner. */
  marked?: boolean;
}) {
  const { fill } = useColours();
  const wheel = kind === "wheel";
  const box = wheel ? `${-width / 2} ${-width / 2} ${width} ${height}` : `0 0 ${width} ${height}`;
  return (
    <svg
      viewBox={box}
      width={size}
      height={(size * height) / Math.max(width, 1)}
      role="img"
      aria-label={label}
      style={{ display: "block", maxWidth: "100%" }}
    >
      {places.map(({ shape: s, ...p }, i) => {
        const thin = marked && !p.read;
        const paint = fill(p);
        if (s.to > s.from)
          return (
            <Sector
              key={i}
              centre={[s.x, s.y]}
              inner={thin ? (s.inner + s.outer) / 2 : s.inner}
              outer={s.outer}
              from={s.from}
              to={s.to}
              gap={0.6}
              fill={paint}
            />
          );
        if (s.w > 0)
          return (
            <rect key={i} x={s.x} y={s.y} width={s.w} height={thin ? s.h / 2 : s.h} fill={paint} />
          );
        return (
          <circle
            key={i}
            cx={s.x}
            cy={s.y}
            r={s.outer}
            fill={paint}
            stroke={grey.paper}
            strokeWidth={0.4}
          />
        );
      })}
    </svg>
  );
}
