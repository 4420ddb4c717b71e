import Button from "@mui/material/Button";
import { useRef, useState, type DragEvent } from "react";

/** Asks for one file, by choosing or by dropping it here. */
export function FileButton({
  label,
  accept,
  camera = false,
  onFile,
}: {
  label: string;
  accept: string;
  /** Opens the camera where there is one. */
  camera?: boolean;
  onFile: (f: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    const f = e.dataTransfer.files[0];
    if (f) onFile(f);
  };
  return (
    <>
      <Button
        variant="outlined"
        onClick={() => input.current?.click()}
        onDragOver={(e: DragEvent) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        sx={{ borderStyle: over ? "dashed" : "solid" }}
      >
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        capture={camera ? "environment" : undefined}
        aria-label={label}
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) onFile(f);
          e.target.value = "";
        }}
      />
    </>
  );
}
