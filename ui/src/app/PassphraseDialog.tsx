import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { answer, client, type Profile } from "../api/client";
import { sessionQuery } from "../api/queries";
import { grey } from "../drawing/style";

/** Gives a painter a passphrase, another one, or none. */
export function PassphraseDialog({ painter, onClose }: { painter: Profile; onClose: () => void }) {
  const queries = useQueryClient();
  const [present, setPresent] = useState("");
  const [next, setNext] = useState("");
  const keep = useMutation({
    mutationFn: () =>
      answer(client.PUT("/api/session/passphrase", { body: { present, new: next } })),
    onSuccess: (session) => {
      queries.setQueryData(sessionQuery.queryKey, session);
      onClose();
    },
  });
  const submit = (e: FormEvent) => {
    e.preventDefault();
    keep.mutate();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      slotProps={{ paper: { sx: { border: `1px solid ${grey.ink}`, width: 420 } } }}
    >
      <Box
        component="form"
        onSubmit={submit}
        sx={{ p: 3, display: "flex", flexDirection: "column", gap: 2 }}
      >
        <Typography variant="h3">Passphrase of {painter.name}</Typography>
        {painter.passphrase && (
          <TextField
            type="password"
            label="the present passphrase"
            value={present}
            autoComplete="current-password"
            onChange={(e) => setPresent(e.target.value)}
          />
        )}
        <TextField
          type="password"
          label="the new passphrase"
          value={next}
          autoComplete="new-password"
          onChange={(e) => setNext(e.target.value)}
          helperText={
            painter.passphrase
              ? "8 characters or more; empty takes it away"
              : "8 characters or more"
          }
        />
        {keep.error && (
          <Typography role="alert" sx={{ fontWeight: 500 }}>
            {keep.error.message}
          </Typography>
        )}
        <Box sx={{ display: "flex", gap: 2 }}>
          <Button type="submit" variant="contained" disabled={!painter.passphrase && next === ""}>
            keep it
          </Button>
          <Button color="inherit" onClick={onClose}>
            leave it
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}
