import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { styled } from "@mui/material/styles";
import { grey } from "../drawing/style";

const Tab = styled(ButtonBase)({
  fontSize: 15,
  lineHeight: "20px",
  padding: "10px 0 8px",
  color: grey.third,
  borderBottom: "2px solid transparent",
  "&:hover": { color: grey.ink },
  "&[aria-checked=true]": { color: grey.ink, fontWeight: 500, borderBottomColor: grey.ink },
});

/** What one looks at: words in a row, the present one ruled under. Arrow keys move it. */
export function Tabs<T extends string>({
  label,
  words,
  value,
  onChoose,
}: {
  label: string;
  words: Record<T, string>;
  value: T;
  onChoose: (value: T) => void;
}) {
  const values = Object.keys(words) as T[];
  const step = (by: number) => {
    const next = values[(values.indexOf(value) + by + values.length) % values.length]!;
    onChoose(next);
    document.getElementById(`${label}-${next}`)?.focus();
  };
  return (
    <Box
      role="radiogroup"
      aria-label={label}
      sx={{ display: "flex", gap: 1.5 }}
      onKeyDown={(e) => {
        const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
        if (by) {
          e.preventDefault();
          e.stopPropagation();
          step(by);
        }
      }}
    >
      {values.map((v) => (
        <Tab
          key={v}
          id={`${label}-${v}`}
          role="radio"
          aria-checked={v === value}
          tabIndex={v === value ? 0 : -1}
          onClick={() => onChoose(v)}
        >
          {words[v]}
        </Tab>
      ))}
    </Box>
  );
}
