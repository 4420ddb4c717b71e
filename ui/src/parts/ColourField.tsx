import TextField from "@mui/material/TextField";

/** A field for a colour as CIELAB or hex. */
export function ColourField({
  label,
  text,
  onText,
  ok,
}: {
  label: string;
  text: string;
  onText: (t: string) => void;
  ok: boolean;
}) {
  return (
    <TextField
      size="small"
      fullWidth
      label={label}
      value={text}
      error={text !== "" && !ok}
      placeholder="43 -33 -18"
      helperText={
        text !== "" && !ok
          ? "three figures of CIELAB (43 -33 -18) or a screen colour (#rrggbb)"
          : " "
      }
      onChange={(e) => onText(e.target.value)}
      slotProps={{
        htmlInput: { maxLength: 40, autoComplete: "off" },
        inputLabel: { shrink: true }, // a long label is not cut, and an example shows
      }}
    />
  );
}
