import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import type { Paint } from "../api/client";
import { paintsQuery } from "../api/queries";
import { plainSettings } from "./choices";

/** One paint of the library, by a list. */
export function LibrarySelect({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (paint: Paint) => void;
}) {
  const paints = useQuery(paintsQuery(plainSettings));
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(e) => {
        const p = paints.data?.find((q) => q.id === e.target.value);
        if (p) onChange(p);
      }}
      sx={{ minWidth: 280 }}
      slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
    >
      <option value="" disabled>
        choose
      </option>
      {paints.data?.map((p) => (
        <option key={p.id} value={p.id}>
          {p.id} {p.name}
        </option>
      ))}
    </TextField>
  );
}
