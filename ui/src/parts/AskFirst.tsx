import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";

/** Asks in words before something is deleted for good. */
export function AskFirst({
  title,
  children,
  yes,
  ready = true,
  onYes,
  onNo,
}: {
  title: string;
  children: ReactNode;
  yes: string;
  /** Whether all is said that has to be. */
  ready?: boolean;
  onYes: () => Promise<unknown>;
  onNo: () => void;
}) {
  const deed = useMutation({ mutationFn: onYes });
  return (
    <Dialog open onClose={onNo}>
      <DialogTitle sx={{ overflowWrap: "anywhere" }}>{title}</DialogTitle>
      <DialogContent>
        {children}
        {deed.error && (
          <Typography role="alert" sx={{ mt: 2, fontWeight: 500 }}>
            {deed.error.message}
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ flexWrap: "wrap", rowGap: 1 }}>
        <Button color="inherit" onClick={onNo}>
          keep it
        </Button>
        <Button
          color="inherit"
          variant="outlined"
          disabled={!ready || deed.isPending}
          onClick={() => deed.mutate()}
        >
          {yes}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
