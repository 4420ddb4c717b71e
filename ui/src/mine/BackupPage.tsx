import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link as To } from "react-router";
import { answer, client, type Profile, type Schemas } from "../api/client";
import { mineQuery, restoringQuery } from "../api/queries";
import { countOf } from "../api/outbox";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { FileButton } from "../parts/FileButton";
import { saveAs } from "../parts/saveAs";
import { usePhone } from "../parts/usePhone";
import { useOutbox } from "../parts/useUnsaved";
import { fetchBackup, mb, sendBackup } from "./backup";

/** All that is a painter's: carried away as one file, and brought back out of one. */
export function BackupPage({ painter }: { painter: Profile }) {
  const mine = useQuery(mineQuery);
  const { phone } = usePhone(); // where the title stands on top
  return (
    <Shell painter={painter} title="All that is yours">
      <Box sx={{ maxWidth: 720 }}>
        {!phone && <Typography variant="h2">All that is yours</Typography>}
        {mine.data && <Typography sx={{ mt: 1 }}>{sentence(counted(mine.data))}</Typography>}
        <SaveBackup mine={mine.data} />
        <BringBack />
        <Typography variant="h3" sx={{ mt: 4 }}>
          One thing from somebody
        </Typography>
        <Typography sx={{ my: 1 }}>
          A wheel or a sitting that another painter took along as a file comes with the paints that
          it needs.
        </Typography>
        <Button component={To} to="/begin/file" color="inherit" sx={{ ml: -1 }}>
          a wheel out of a file
        </Button>
        <Button component={To} to="/log/file" color="inherit">
          a sitting out of a file
        </Button>
      </Box>
    </Shell>
  );
}

/** What is kept, kind by kind, in words; what there is none of is left out. */
function counted(of: Schemas["Belongings"]): string[] {
  return (
    [
      [of.tubes, "tube", "tubes"],
      [of.wheels, "wheel", "wheels"],
      [of.sittings, "sitting", "sittings"],
      [of.readings, "reading", "readings"],
      [of.photos, "photo", "photos"],
      [of.guesses, "guess", "guesses"],
      [of.comparisons, "comparison", "comparisons"],
    ] as const
  )
    .filter(([n]) => n > 0)
    .map(([n, one, more]) => `${n} ${n === 1 ? one : more}`);
}

function sentence(of: string[]): string {
  if (of.length === 0) return "Nothing is kept yet.";
  return `${[of.slice(0, -1).join(", "), of.at(-1)].filter(Boolean).join(" and ")}.`;
}

/** How far something is, in words and as a line that fills. */
function Far({ done, of, says }: { done: number; of: number; says: string }) {
  const share = of > 0 ? Math.min(done / of, 1) : 0;
  return (
    <Box sx={{ mt: 2, maxWidth: 420 }}>
      <Typography variant="body2" role="status">
        {says}
      </Typography>
      <LinearProgress
        variant="determinate"
        aria-label={says}
        value={100 * share}
        sx={{
          mt: 0.5,
          bgcolor: grey.hairline,
          "& .MuiLinearProgress-bar": { bgcolor: grey.ink },
        }}
      />
    </Box>
  );
}

/** A way to break off what is under way, also when the page is left. */
function useBreakOff() {
  const off = useRef<AbortController>(undefined);
  useEffect(() => () => off.current?.abort(), []);
  return {
    begin: () => (off.current = new AbortController()).signal,
    end: () => off.current?.abort(),
  };
}

function SaveBackup({ mine }: { mine: Schemas["Belongings"] | undefined }) {
  const [bytes, setBytes] = useState(0);
  const off = useBreakOff();
  const waits = countOf(useOutbox().lines).waiting > 0;
  const save = useMutation({
    mutationFn: async () => {
      setBytes(0);
      const signal = off.begin();
      const file = await fetchBackup(setBytes, signal);
      saveAs(file, mine!.backup);
      return file.size;
    },
  });
  return (
    <Box component="section" aria-label="carry it away" sx={{ mt: 3 }}>
      <Typography variant="h3">Carry it away</Typography>
      <Typography sx={{ my: 1 }}>
        All of it as one file, which any Gyrophane takes in again. Whoever has the file can read it;
        your passphrase and where you are signed in are not in it.
        {waits && " What waits to be saved just now is not in it yet."}
      </Typography>
      <Button
        variant="contained"
        disabled={!mine || counted(mine).length === 0 || save.isPending}
        onClick={() => save.mutate()}
      >
        save a backup
      </Button>
      {save.isPending && (
        <>
          <Far
            done={bytes}
            of={mine?.bytes ?? 0}
            says={`${mb(bytes)} of about ${mb(Math.max(bytes, mine?.bytes ?? 0))}`}
          />
          <Button color="inherit" onClick={off.end} sx={{ ml: -1 }}>
            leave it
          </Button>
        </>
      )}
      {save.isSuccess && (
        <Typography role="status" sx={{ mt: 2, overflowWrap: "anywhere" }}>
          Saved as {mine!.backup}, {mb(save.data)}.
        </Typography>
      )}
      {save.error && save.error.name !== "AbortError" && (
        <Typography role="alert" sx={{ mt: 2 }}>
          {save.error.message}
        </Typography>
      )}
    </Box>
  );
}

function BringBack() {
  const queries = useQueryClient();
  const far = useQuery(restoringQuery);
  const [sent, setSent] = useState<{ bytes: number; of: number }>();
  const off = useBreakOff();
  const is = (now: Schemas["Restoring"]) => queries.setQueryData(restoringQuery.queryKey, now);
  const begin = async (keep: boolean) =>
    is(await answer(client.POST("/api/mine/restoring", { body: { keep } })));
  const leave = async () => {
    await answer(client.DELETE("/api/mine/restoring"));
    await queries.invalidateQueries(restoringQuery);
  };
  const send = useMutation({
    mutationFn: async (file: File) => {
      setSent({ bytes: 0, of: file.size });
      await sendBackup(file, (bytes) => setSent({ bytes, of: file.size }), off.begin());
      await begin(false);
    },
    onSettled: () => setSent(undefined),
  });
  const keep = useMutation({ mutationFn: () => begin(true) });
  const state = far.data?.state;
  const taken = state === "taken in";
  useEffect(() => {
    // All that is shown may be other now.
    if (taken)
      void queries.invalidateQueries({
        predicate: ({ queryKey }) => queryKey[0] !== restoringQuery.queryKey[0],
      });
  }, [taken, queries]);
  const problem =
    (send.error?.name !== "AbortError" && send.error?.message) ||
    keep.error?.message ||
    (state === "refused" && far.data?.problem);
  const busy = !!sent || state === "under way";
  return (
    <Box component="section" aria-label="bring it back" sx={{ mt: 4 }}>
      <Typography variant="h3">Bring it back</Typography>
      <Typography sx={{ my: 1 }}>
        A backup is looked at first. What is here already stays; what the backup has newer is
        brought up to date; where a thing went two ways both are kept.
      </Typography>
      {!busy && state !== "looked at" && (
        <FileButton
          label="choose a backup"
          accept=".zip,application/zip"
          onFile={(f) => {
            keep.reset();
            send.mutate(f);
          }}
        />
      )}
      {sent && (
        <Far done={sent.bytes} of={sent.of} says={`sending: ${mb(sent.bytes)} of ${mb(sent.of)}`} />
      )}
      {!sent && far.data && state === "under way" && (
        <Far
          done={far.data.done}
          of={far.data.of}
          says={
            far.data.of === 0
              ? "waiting for its turn"
              : `${far.data.keep ? "taking it in" : "looking at it"}: ${far.data.done} of ${far.data.of}`
          }
        />
      )}
      {busy && (
        <Button
          color="inherit"
          sx={{ ml: -1 }}
          onClick={() => {
            off.end();
            void leave();
          }}
        >
          leave it
        </Button>
      )}
      {problem && !busy && (
        <Typography role="alert" sx={{ mt: 2 }}>
          {problem}
        </Typography>
      )}
      {!sent && far.data && (state === "looked at" || taken) && (
        <Found of={far.data} taken={taken}>
          <Button
            variant="contained"
            disabled={keep.isPending}
            onClick={() => keep.mutate()}
            sx={{ mr: 1 }}
          >
            take it in
          </Button>
          <Button variant="outlined" onClick={() => void leave()}>
            leave it
          </Button>
        </Found>
      )}
    </Box>
  );
}

/** What a backup holds, and what becomes of it, or became. */
function Found({
  of,
  taken,
  children,
}: {
  of: Schemas["Restoring"];
  taken: boolean;
  children: React.ReactNode;
}) {
  const kinds = of.kinds.filter((k) => k.added + k.updated + k.stay + k.beside.length > 0);
  const changes = kinds.some((k) => k.added + k.updated + k.beside.length > 0);
  const columns = outcomes.filter((c) => kinds.some((k) => c.of(k) > 0));
  const beside = kinds.filter((k) => k.beside.length > 0);
  return (
    <Box component="section" aria-label="what the backup holds" sx={{ mt: 3 }}>
      <Typography role="status" sx={{ overflowWrap: "anywhere" }}>
        {taken ? "It is taken in." : `A backup of ${of.made}.`}{" "}
        {!changes && (taken ? "" : "All that it holds is here already.")}
      </Typography>
      <Box component="table" sx={{ mt: 1, borderCollapse: "collapse" }}>
        <Box component="thead">
          <Box component="tr">
            <Box component="td" />
            {columns.map((c) => (
              <Box
                component="th"
                key={c.says}
                scope="col"
                sx={{ fontWeight: 400, fontSize: 13, textAlign: "right", p: "4px 0 4px 24px" }}
              >
                {c.says}
              </Box>
            ))}
          </Box>
        </Box>
        <Box component="tbody">
          {kinds.map((k) => (
            <Box component="tr" key={k.what} sx={{ borderTop: `1px solid ${grey.hairline}` }}>
              <Box
                component="th"
                scope="row"
                sx={{ textAlign: "left", fontWeight: 400, p: "6px 24px 6px 0" }}
              >
                {k.what}
              </Box>
              {columns.map((c) => (
                <Box
                  component="td"
                  key={c.says}
                  sx={{
                    textAlign: "right",
                    p: "6px 0 6px 24px",
                    fontVariantNumeric: "tabular-nums",
                    color: c.of(k) ? undefined : grey.second,
                  }}
                >
                  {c.of(k) || "–"}
                </Box>
              ))}
            </Box>
          ))}
        </Box>
      </Box>
      {beside.map((k) => (
        <Typography key={k.what} variant="body2" sx={{ mt: 1, overflowWrap: "anywhere" }}>
          {ways[k.what] ?? `Of ${k.what} that went two ways what is here stays:`}{" "}
          {k.beside.slice(0, 12).join(", ")}
          {k.beside.length > 12 && ` and ${k.beside.length - 12} more`}.
        </Typography>
      ))}
      {!taken && <Box sx={{ mt: 2 }}>{children}</Box>}
    </Box>
  );
}

type Kind = Schemas["RestoredKind"];

/** What may become of things. */
const outcomes: { says: string; of: (k: Kind) => number }[] = [
  { says: "new", of: (k) => k.added },
  { says: "brought up to date", of: (k) => k.updated },
  { says: "stay as they are", of: (k) => k.stay },
  { says: "went two ways", of: (k) => k.beside.length },
];

/** What becomes of things that went two ways. */
const ways: Record<string, string> = {
  tubes: "Of these tubes both are kept, for you to choose in the box:",
  wheels: "Of these wheels both are kept, the other beside yours:",
  sittings: "Of these sittings both notes for next time are kept:",
  "strengths taken": "These strengths are kept taken back, for their tubes have others since:",
  comparisons: "Of these comparisons both are kept:",
};
