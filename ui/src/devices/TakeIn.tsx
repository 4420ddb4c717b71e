import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Profile } from "../api/client";
import { countOf } from "../api/outbox";
import { outbox } from "../api/waiting";
import { readWaited } from "../api/waitingFile";
import { FileButton } from "../parts/FileButton";

/** Takes in what waited on a device that reaches the server no more. */
export function TakeIn({ painter }: { painter: Profile }) {
  const [said, setSaid] = useState<{ problem: boolean; words: string } | null>(null);
  const take = async (file: File) => {
    try {
      const lines = await readWaited(file, painter);
      const { waiting, aside } = countOf(lines);
      const n = waiting + aside;
      outbox.takeIn(lines);
      setSaid({
        problem: false,
        words: `${n} ${n === 1 ? "thing was" : "things were"} taken in and ${n === 1 ? "goes" : "go"} where ${n === 1 ? "it belongs" : "they belong"}.`,
      });
    } catch (e) {
      setSaid({ problem: true, words: (e as Error).message });
    }
  };
  return (
    <section aria-label="what waited on a phone">
      <Typography sx={{ mb: 1 }}>
        Did this machine get another address while something waited on a phone? Its open page offers
        to save that as a file; send it here and take it in.
      </Typography>
      <FileButton
        label="take in what waited"
        accept=".json,application/json"
        onFile={(f) => void take(f)}
      />
      {said && (
        <Typography role={said.problem ? "alert" : "status"} sx={{ mt: 1, fontWeight: 500 }}>
          {said.words}
        </Typography>
      )}
    </section>
  );
}
