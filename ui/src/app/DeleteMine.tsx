import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, constants, type Profile } from "../api/client";
import { sessionQuery } from "../api/queries";
import { forget } from "../api/waiting";
import { AskFirst } from "../parts/AskFirst";

/** Deletes all that is a painter's, here and in this browser, once the name was typed. */
export function DeleteMine({ painter, onClose }: { painter: Profile; onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [passphrase, setPassphrase] = useState("");
  return (
    <AskFirst
      title={`Delete all that is ${painter.name}'s?`}
      yes="delete all of it"
      ready={name === painter.name}
      onNo={onClose}
      onYes={async () => {
        const session = await answer(
          client.POST("/api/mine/deleted", { body: { name, ...(passphrase && { passphrase }) } }),
        );
        forget(painter.id);
        await navigate("/");
        queries.setQueryData(sessionQuery.queryKey, session);
      }}
    >
      <Typography>
        The box, the wheels, all sittings with their readings and photos, what was learned and
        guessed: gone from this machine and from this browser at once, and not to be taken back.
        What waits on another device of yours is put aside there, to be saved as a file.
      </Typography>
      <Typography sx={{ mt: 1.5 }}>
        Copies that the machine keeps of its database hold it for a while yet: those of each night
        for {constants.nightsKept} days, unless whoever runs it keeps them for longer, and the two
        from before its tables changed last.
      </Typography>
      <Button
        color="inherit"
        onClick={() => {
          onClose();
          void navigate("/mine");
        }}
        sx={{ mt: 1, ml: -1 }}
      >
        save a backup first
      </Button>
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, mt: 2 }}>
        <TextField
          label={`type ${painter.name}`}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        {painter.passphrase && (
          <TextField
            type="password"
            label="the passphrase"
            autoComplete="current-password"
            value={passphrase}
            onChange={(e) => setPassphrase(e.target.value)}
          />
        )}
      </Box>
    </AskFirst>
  );
}
