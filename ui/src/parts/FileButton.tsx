import Button from "@mui/material/Button";
import { useId, useState, type DragEvent } from "react";
import { grey } from "../drawing/style";

/** Asks for one file, by choosing or by dropping it here. */
export function FileButton({
  label,
  accept,
  onFile,
}: {
  label: string;
  accept: string;
  onFile: (f: File) => void;
}) {
  const id = useId();
  const [over, setOver] = useState(false);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    const f = e.dataTransfer.files[0];
    if (f) onFile(f);
  };
  return (
    <Button
      component="label"
      htmlFor={id}
      variant="outlined"
      onDragOver={(e: DragEvent) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      sx={{
        borderStyle: over ? "dashed" : "solid",
        "&:focus-within": { outline: `2px solid ${grey.ink}`, outlineOffset: 2 },
      }}
    >
      {label}
      <input
        id={id}
        type="file"
        accept={accept}
        aria-label={label}
        style={{ position: "absolute", opacity: 0, width: 1, height: 1 }}
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) onFile(f);
          e.target.value = "";
        }}
      />
    </Button>
  );
}
