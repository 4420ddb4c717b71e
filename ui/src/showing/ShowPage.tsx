import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { answer, client, type Profile, type Schemas } from "../api/client";
import { accessQuery, showableQuery, showingsQuery, wheelsQuery } from "../api/queries";
import { shownAt } from "../api/shown";
import { Shell } from "../app/Shell";
import { figures, grey } from "../drawing/style";
import { alone, outside } from "../parts/address";
import { Setting } from "../parts/Choice";
import { dayAndTime } from "../parts/dates";
import { Entry } from "../parts/Entry";
import { Tick } from "../parts/Tick";
import { useView } from "../parts/useView";
import { Waiting } from "../parts/Waiting";

type Kind = Schemas["ShowableKind"];
type Made = Schemas["MadeShowing"];

const kindWords: Record<Kind, string> = {
  wheel: "a wheel",
  comparison: "a comparison",
  box: "the box",
  sheet: "a sheet",
  sitting: "a sitting",
};

const isKind = (kind: string | undefined): kind is Kind => !!kind && kind in kindWords;

/** Shows something to others, and takes back what is shown. */
export function ShowPage({ painter }: { painter: Profile }) {
  const { kind, thing } = useParams();
  const [made, setMade] = useState<Made | null>(null);
  return (
    <Shell painter={painter} title="Shown to others">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 520px) minmax(0, 1fr)" },
          columnGap: 7,
          rowGap: 4,
          maxWidth: 1160,
        }}
      >
        <Box>
          {made ? (
            <Address made={made} />
          ) : isKind(kind) ? (
            <NewShowing
              key={kind}
              kind={kind}
              thing={Number(thing) || undefined}
              onMade={setMade}
            />
          ) : (
            <>
              <Typography variant="h2" sx={{ mb: 1.5 }}>
                Show one thing to others
              </Typography>
              <Typography>
                Open what you want to show, a wheel, a sheet of one, a sitting, the box or a
                comparison that you kept, and take it along: <b>show it to others</b>. They get an
                address to look at that one thing, and nothing else of yours.
              </Typography>
            </>
          )}
        </Box>
        <ShownNow just={made?.id} />
      </Box>
    </Shell>
  );
}

const sees = {
  live: "as it is at the time",
  then: "as it is today",
} as const;

/** Until when something is shown, by the hours from now. */
const until = {
  "0": "I take it back",
  "12": "half a day from now",
  "168": "a week from now",
  "720": "a month from now",
} as const;

/** What others would see, and what of it the painter leaves to them. */
function NewShowing({
  kind,
  thing,
  onMade,
}: {
  kind: Kind;
  thing: number | undefined;
  onMade: (made: Made) => void;
}) {
  const queries = useQueryClient();
  const { view } = useView();
  const sheet = useSearchParams()[0].get("sheet") ?? undefined; // which one of a wheel
  const showable = useQuery(showableQuery(kind));
  const [also, setAlso] = useState({ notes: false, prices: false, photos: false, name: false });
  const [as, setAs] = useState<keyof typeof sees>("live");
  const [hours, setHours] = useState<keyof typeof until>("0");
  const make = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/showings", {
          params: { query: view },
          body: {
            kind,
            thing,
            sheet,
            live: as === "live",
            hours: Number(hours) || undefined,
            ...also,
          },
        }),
      ),
    onSuccess: (made) => {
      onMade(made);
      void queries.invalidateQueries(showingsQuery);
    },
  });
  const ofWheel = kind === "wheel" || kind === "sheet";
  const wheels = useQuery({ ...wheelsQuery, enabled: ofWheel });
  const wheel = ofWheel ? wheels.data?.find((w) => w.id === thing)?.name : undefined;
  const name = kind === "sheet" && wheel ? `a sheet of ${wheel}` : wheel;
  const of = showable.data;
  if (!of) return <Waiting failing={showable.failureCount > 0} />;
  return (
    <>
      <Typography variant="h2" sx={{ mb: 1.5, overflowWrap: "anywhere" }}>
        Show {name ?? kindWords[kind]} to others
      </Typography>
      <Typography>Whoever has the address sees, and can change nothing of it:</Typography>
      <Box component="ul" sx={{ my: 1, pl: 2.5 }}>
        {of.seen.map((says) => (
          <Typography component="li" key={says}>
            {says}
          </Typography>
        ))}
      </Box>
      <Typography sx={{ mt: 2 }}>And where you tick it:</Typography>
      <Box sx={{ display: "grid", justifyItems: "start" }}>
        {(["notes", "prices", "photos", "name"] as const).map(
          (what) =>
            of[what] && (
              <Tick
                key={what}
                words={of[what]}
                on={also[what]}
                onSet={(on) => setAlso({ ...also, [what]: on })}
              />
            ),
        )}
      </Box>
      <Typography sx={{ mt: 1, color: grey.second }}>Never: {of.never}.</Typography>
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 3,
          borderTop: `1px solid ${grey.hairline}`,
          mt: 2,
          py: 1,
        }}
      >
        <Box sx={{ display: "flex", alignItems: "center", columnGap: 1 }}>
          <Typography sx={{ color: grey.second }}>seen</Typography>
          <Setting label="seen" words={sees} value={as} onChoose={setAs} />
        </Box>
        <Box sx={{ display: "flex", alignItems: "center", columnGap: 1 }}>
          <Typography sx={{ color: grey.second }}>until</Typography>
          <Setting label="until" words={until} value={hours} onChoose={setHours} />
        </Box>
      </Box>
      <Button
        variant="contained"
        size="large"
        disabled={make.isPending}
        onClick={() => make.mutate()}
      >
        make the address
      </Button>
      {make.error && (
        <Typography role="alert" sx={{ mt: 1.5, fontWeight: 500 }}>
          {make.error.message}
        </Typography>
      )}
    </>
  );
}

/** The address of something that is shown, told once. */
function Address({ made }: { made: Made }) {
  const access = useQuery(accessQuery);
  const [copied, setCopied] = useState(false);
  const address = `${outside(access.data)}${shownAt}#${made.token}`;
  return (
    <>
      <Typography variant="h2" sx={{ mb: 1.5, overflowWrap: "anywhere" }}>
        {made.called}
      </Typography>
      <Typography>
        Whoever opens this address sees it. It is told this once: here it is kept in a form that
        cannot be read back.
      </Typography>
      <Typography
        aria-label="address"
        sx={{ fontFamily: figures, my: 2, overflowWrap: "anywhere", userSelect: "all" }}
      >
        {address}
      </Typography>
      {window.isSecureContext && (
        <Button
          variant="contained"
          onClick={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
        >
          {copied ? "copied" : "copy it"}
        </Button>
      )}
      <Box sx={{ mt: 3, p: 2, bgcolor: "#fff", width: "fit-content" }}>
        <QRCodeSVG value={address} size={200} role="img" aria-label="the address as a picture" />
      </Box>
      {alone(access.data) && (
        <Typography sx={{ mt: 2 }}>
          Gyrophane listens on this machine alone just now, so nobody else reaches it. Start it with
          {" --lan"} for the devices of your own network.
        </Typography>
      )}
    </>
  );
}

/** What the painter shows now, each to be taken back. */
function ShownNow({ just }: { just: number | undefined }) {
  const queries = useQueryClient();
  const showings = useQuery(showingsQuery);
  const back = useMutation({
    mutationFn: (id: number) =>
      answer(client.DELETE("/api/showings/{id}", { params: { path: { id } } })),
    onSuccess: (left) => queries.setQueryData(showingsQuery.queryKey, left),
  });
  const problem = back.error ?? showings.error;
  return (
    <Box component="section" aria-label="shown now">
      <Typography variant="h3" sx={{ mb: 1 }}>
        Shown now
      </Typography>
      {showings.data?.length === 0 && (
        <Typography sx={{ color: grey.second }}>Nothing is shown to anybody.</Typography>
      )}
      {showings.data?.map((s) => (
        <Entry
          key={s.id}
          name={s.called}
          heavy={s.id === just}
          says={
            <>
              {kindWords[s.kind]},{" "}
              {s.live ? "as it is at the time" : `as of ${dayAndTime.format(new Date(s.made))}`}
              {[
                s.notes && "notes",
                s.prices && "prices",
                s.photos && "photos",
                s.name && "your name",
              ]
                .filter(Boolean)
                .map((w) => `, with ${w}`)
                .join("")}
              {s.ends ? `; until ${dayAndTime.format(new Date(s.ends))}` : ""}
            </>
          }
        >
          <Button
            variant="outlined"
            color="inherit"
            aria-label={`take back ${s.called}`}
            disabled={back.isPending}
            onClick={() => back.mutate(s.id)}
          >
            take it back
          </Button>
        </Entry>
      ))}
      {problem && (
        <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
          {problem.message}
        </Typography>
      )}
    </Box>
  );
}
