import { grey } from "./style";
import { useColours } from "./screen";
import type { Shown, Sureness, Verdict } from "./shapes";

const outline = "M9.7 1.1 C9.3 5.3 2 8 2 13 A6 6 0 0 0 14 13 C14 9 10.7 6.7 9.7 1.1Z";
const arrow = "M1 4.6 L14.2 5 L12.4 1.4 L23 6 L12.4 10.6 L14.2 7 L1 7.4Z";
const lower = "M2.1 12 A6 6 0 1 0 13.9 12 Z";

/** How an outline is drawn: whole where it is sure, dashed where it is likely, dotted where it may go either way. */
export const dashes: Record<Sureness, string | undefined> = {
  sure: undefined,
  likely: "5 2.6",
  "either way": "1.7 2.3",
};

/**
 * The verdict as a shape: full, half or hollow drop, a small full one in a hollow one for quiet; nothing for neutral.
 * Its outline says how sure it is.
 */
export function Drop({
  verdict,
  sure = "sure",
  height = 17,
  x,
  y,
}: {
  verdict: Verdict;
  sure?: Sureness;
  height?: number;
  x?: number;
  y?: number;
}) {
  if (verdict === "neutral") return null;
  const whole = sure === "sure";
  // Within an outline that is broken what fills it stands back, so that the outline is seen.
  const within = whole ? undefined : "translate(2.56 3.95) scale(0.68)";
  return (
    <svg
      x={x}
      y={y}
      width={(height * 16) / 20}
      height={height}
      viewBox="0 0 16 20"
      aria-hidden
      focusable="false"
    >
      <path
        d={outline}
        fill={verdict === "clean" && whole ? grey.ink : "none"}
        stroke={grey.ink}
        strokeWidth={1.5}
        strokeDasharray={dashes[sure]}
      />
      {verdict === "clean" && !whole && <path d={outline} fill={grey.ink} transform={within} />}
      {verdict === "softened" && <path d={lower} fill={grey.ink} transform={within} />}
      {verdict === "quiet" && (
        <path d={outline} fill={grey.ink} transform="translate(4.3 7.4) scale(0.46)" />
      )}
    </svg>
  );
}

/**
 * Where a paint leans: a piece of the wheel, turning as the wheel on the screen does, with
 * the colours of its two neighbours at the ends, the hinge between them and the paint's place.
 */
export function LeanMark({
  lean,
}: {
  lean: { toward: string; degrees: number; lower: Shown; higher: Shown };
}) {
  const { fill } = useColours();
  const centred = lean.toward === "centred";
  const t = centred ? 0.5 : 0.5 + Math.max(-0.3, Math.min(0.3, -lean.degrees / 60));
  const [x, y] = [3 + 28 * t, 11 - 16 * t * (1 - t)];
  return (
    <svg width={34} height={15} viewBox="0 0 34 15" aria-hidden focusable="false">
      <path d="M3 11 Q17 3 31 11" fill="none" stroke={grey.mark} strokeWidth={1.4} />
      <path d="M17 2.5 V6" stroke={grey.mark} strokeWidth={1.4} />
      <circle cx={3.6} cy={11} r={3.2} fill={fill(lean.higher)} />
      <circle cx={30.4} cy={11} r={3.2} fill={fill(lean.lower)} />
      <circle
        cx={x}
        cy={y}
        r={centred ? 2.8 : 3.4}
        fill={centred ? grey.paper : grey.ink}
        stroke={grey.ink}
        strokeWidth={1.4}
      />
    </svg>
  );
}

/** How a paint of a pair leans: filled toward its partner, hollow away from it, a ring when centred. */
export function PairArrow({
  side,
  right = false,
}: {
  side: "toward" | "centred" | "away";
  right?: boolean;
}) {
  return (
    <svg width={24} height={12} viewBox="0 0 24 12" aria-hidden focusable="false">
      {side === "centred" ? (
        <circle cx={12} cy={6} r={3.6} fill="none" stroke={grey.ink} strokeWidth={1.5} />
      ) : (
        <path
          d={arrow}
          fill={side === "toward" ? grey.ink : "none"}
          stroke={grey.ink}
          strokeWidth={side === "toward" ? 0 : 1.1}
          transform={right === (side === "toward") ? "translate(24 0) scale(-1 1)" : undefined}
        />
      )}
    </svg>
  );
}

/** Tinting strength, 1 to 5, as rising strokes. */
export function StrengthMark({ strength }: { strength: number }) {
  return (
    <svg
      width={23}
      height={14}
      viewBox="0 0 23 14"
      role="img"
      aria-label={`strength ${strength} of 5`}
    >
      {[1, 2, 3, 4, 5].map((n) => (
        <rect
          key={n}
          x={(n - 1) * 5}
          y={11 - 2 * n}
          width={3}
          height={3 + 2 * n}
          fill={n <= strength ? grey.ink : "none"}
          stroke={n <= strength ? "none" : grey.mark}
          strokeWidth={0.8}
        />
      ))}
    </svg>
  );
}

/** Hiding, as a stripe under a film: seen through, half seen, gone. */
export function HidingMark({ hiding }: { hiding: keyof typeof hidingWords }) {
  return (
    <svg width={22} height={14} viewBox="0 0 22 14" role="img" aria-label={hidingWords[hiding]}>
      <rect
        x={0.5}
        y={0.5}
        width={21}
        height={13}
        fill={hiding === "opaque" ? grey.mark : "none"}
        stroke={grey.ink}
      />
      {hiding !== "opaque" && (
        <rect x={8} y={1} width={6} height={hiding === "transparent" ? 12 : 6} fill={grey.ink} />
      )}
    </svg>
  );
}

export const hidingWords = {
  opaque: "opaque",
  semi: "half opaque",
  transparent: "transparent",
} as const;

/** The mark: a gyre, thick where it is bright. */
export function Mark({ size = 24 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden focusable="false">
      <path
        fillRule="evenodd"
        fill={grey.ink}
        d="M12 1.4 C16.5 1 20.4 3.6 21.6 7.6 C22.6 11 20 13.4 20.8 16.4 C21.2 19.6 17.6 21.4 14.6 20.6 C11.4 19.8 9.4 22.8 6.4 21.2 C2.8 19.4 3.6 15.6 3 12.4 C2.2 7.4 6.6 1.9 12 1.4Z M12.2 6.6 A5.4 5.4 0 1 0 12.2 17.4 A5.4 5.4 0 1 0 12.2 6.6Z"
      />
    </svg>
  );
}
