import ButtonBase from "@mui/material/ButtonBase";
import { useLayoutEffect } from "react";
import { squint, useSquint } from "../drawing/screen";
import { grey } from "../drawing/style";
import { typing } from "../parts/keys";

/** The key that squints, at every place. */
const key = "v";

/** Squint: all figures by lightness alone. */
export function Squint() {
  const squinting = useSquint();
  return (
    <ButtonBase
      aria-pressed={squinting}
      title={`by lightness alone (key ${key})`}
      onClick={() => squint(!squinting)}
      sx={{
        px: 0.5,
        fontSize: 15,
        minHeight: 32,
        borderBottom: `2px solid ${squinting ? grey.ink : "transparent"}`,
        fontWeight: squinting ? 600 : 400,
      }}
    >
      squint
    </ButtonBase>
  );
}

/** Its key, and what photos are seen through meanwhile: their luminance alone [IEC 61966-2-1]. */
export function Squinting() {
  const squinting = useSquint();
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.key === key && !typing(e)) squint(!squinting);
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
  return (
    <svg width={0} height={0} aria-hidden style={{ position: "absolute" }}>
      <filter id="luminance" colorInterpolationFilters="linearRGB">
        <feColorMatrix values={`${"0.2126729 0.7151522 0.072175 0 0 ".repeat(3)} 0 0 0 1 0`} />
      </filter>
    </svg>
  );
}
