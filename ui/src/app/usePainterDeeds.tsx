import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState, type ReactNode } from "react";
import { useLocation, useNavigate } from "react-router";
import { client, type Profile } from "../api/client";
import { sessionQuery } from "../api/queries";
import { usePhone } from "../parts/usePhone";
import { DeleteMine } from "./DeleteMine";
import { useFirstMinute } from "./FirstMinute";
import { PassphraseDialog } from "./PassphraseDialog";
import { SessionsDialog } from "./SessionsDialog";
import { BeforeLeaving } from "./WaitingHere";

/** What a painter does that belongs to no place, and the dialogs that it opens. */
export function usePainterDeeds(painter: Profile): {
  deeds: { words: string; does: () => void }[];
  dialogs: ReactNode;
} {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const firstMinute = useFirstMinute();
  const { phone } = usePhone(); // which has no room for the first minute
  const [asked, setAsked] = useState<"passphrase" | "sessions" | "leave" | "delete" | null>(null);
  const leave = useCallback(async () => {
    setAsked(null);
    await client.DELETE("/api/session");
    await navigate("/");
    await queries.invalidateQueries(sessionQuery);
  }, [navigate, queries]);
  const deeds = [
    { words: "words", does: () => void navigate("/words") },
    painter.demo &&
      !phone &&
      !firstMinute.shown && { words: "a first minute", does: firstMinute.bringBack },
    !painter.demo && {
      words: painter.passphrase ? "another passphrase" : "a passphrase",
      does: () => setAsked("passphrase"),
    },
    !phone && {
      words: "open this on my phone",
      does: () =>
        void navigate("/phone", { state: { to: pathname === "/phone" ? "/" : pathname + search } }),
    },
    { words: "what I show to others", does: () => void navigate("/show") },
    { words: "predicting with a class", does: () => void navigate("/class") },
    { words: "all that is mine", does: () => void navigate("/mine") },
    { words: "where I am signed in", does: () => setAsked("sessions") },
    { words: "somebody else is painting", does: () => setAsked("leave") },
    !painter.demo && { words: "delete all that is mine", does: () => setAsked("delete") },
  ].filter((d) => !!d);
  const close = () => setAsked(null);
  return {
    deeds,
    dialogs: (
      <>
        {asked === "passphrase" && <PassphraseDialog painter={painter} onClose={close} />}
        {asked === "leave" && <BeforeLeaving onLeave={() => void leave()} onStay={close} />}
        {asked === "delete" && <DeleteMine painter={painter} onClose={close} />}
        {asked === "sessions" && <SessionsDialog painter={painter} onClose={close} />}
      </>
    ),
  };
}
