import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link as To, useParams } from "react-router";
import type { Profile } from "../api/client";
import { wheelQuery } from "../api/queries";
import { KeptShell, MissingWheel } from "../app/Kept";
import { grey } from "../drawing/style";
import { choicesOf, OneOf } from "../parts/Choice";
import { plainSettings, sheetWords } from "../parts/choices";
import { useAddress } from "../parts/useAddress";
import { useKeptWheel } from "../parts/useKeptWheel";
import { useMeasure } from "../parts/useMeasure";
import { Waiting } from "../parts/Waiting";
import { Words } from "../parts/Words";

const papers = { A4: "A4", A5: "A5", Letter: "Letter" } as const;
const ways = { upright: "upright", flat: "flat" } as const;
const looks = { outline: "outlines to paint", colour: "colours aimed at" } as const;
const recipes = { parts: "parts", dabs: "counted out", none: "no recipes" } as const;
const kinds = {
  sheet: "to paint",
  plan: "in order",
  cards: "recipe cards",
  all: "all three",
} as const;
const nothing = { kind: "triad" as const, roles: [], chosen: [], riders: {}, note: "" };

export function PaperPage({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OnePaper key={id} id={id} painter={painter} />;
}

/** A sheet of a kept wheel as it comes out of the printer. */
function OnePaper({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content } = own;
  const { search, show, one } = useAddress();
  const kept = content?.settings ?? plainSettings;
  const { measure, size } = useMeasure(kept.medium);
  const wheel = useQuery({
    ...wheelQuery(id, content?.system ?? nothing, kept),
    enabled: !!content,
  });
  const kind = one<keyof typeof sheetWords>("sheet", sheetWords, "wheel");
  const paper = one<keyof typeof papers>("paper", papers, "A4");
  const way = one<keyof typeof ways>("way", ways, "upright");
  const look = one<keyof typeof looks>("look", looks, "outline");
  const recipe = one<keyof typeof recipes>("recipes", recipes, "parts");
  const as = one<keyof typeof kinds>("as", kinds, "sheet");
  const slot = search.get("slot") ?? "0";
  const section = search.get("section") ?? "0";
  const page = /^\d{1,3}$/.exec(search.get("page") ?? "")?.[0] ?? "1";
  const query = new URLSearchParams({
    kind,
    slot,
    section,
    paper,
    flat: String(way === "flat"),
    colours: String(look === "colour"),
    recipes: recipe,
    as: as === "all" ? "sheet,plan,cards" : as,
    measure,
    ...(size ? { one: String(size) } : {}),
  });
  // What is kept decides too: a new version is another picture.
  const version = String(own.kept?.version ?? 0);
  const picture = `/api/wheels/${id}/paper?${query}&format=svg&page=${page}&v=${version}`;
  const pdf = `/api/wheels/${id}/paper?${query}&v=${version}`;
  const [failed, setFailed] = useState<{ of: string; why: string } | null>(null);
  useEffect(() => {
    const print = (e: KeyboardEvent) => {
      if (e.key === "p" && e.target === document.body && !e.ctrlKey && !e.metaKey)
        window.open(pdf, "_blank", "noopener");
    };
    window.addEventListener("keydown", print);
    return () => window.removeEventListener("keydown", print);
  });
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;
  const ofSlot = kind === "values" || kind === "intensity" || kind === "run";
  const slots = (wheel.data?.slots ?? []).filter((s) => !s.empty);
  const ladders = (wheel.data?.sections ?? []).flatMap((s, k) =>
    s.from && s.to ? [{ value: String(k), name: `${s.from} to ${s.to}` }] : [],
  );
  const why = async () => {
    const answer = await fetch(picture);
    const problem = (await answer.json().catch(() => ({}))) as { detail?: string };
    setFailed({ of: picture, why: problem.detail ?? "The sheet could not be drawn." });
  };
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="bench">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "300px minmax(0, 1fr)" },
          gap: 4,
        }}
      >
        <Box
          component="section"
          aria-label="on paper"
          sx={{ display: "flex", flexDirection: "column", gap: 1, alignItems: "flex-start" }}
        >
          <Typography variant="h2">{content.name}, on paper</Typography>
          <OneOf
            label={`sheet: ${kind}`}
            bold
            shown={sheetWords[kind]}
            of={choicesOf(sheetWords)}
            value={kind}
            onChoose={(v) => show({ sheet: v, page: undefined })}
          />
          {ofSlot && (
            <OneOf
              label="of the slot"
              shown={`of ${slots.find((s) => String(s.index) === slot)?.name ?? ""}`}
              of={slots.map((s) => ({ value: String(s.index), name: s.name }))}
              value={slot}
              onChoose={(v) => show({ slot: v })}
            />
          )}
          {kind === "ladder" && (
            <OneOf
              label="of the section"
              shown={ladders.find((w) => w.value === section)?.name ?? ""}
              of={ladders}
              value={section}
              onChoose={(v) => show({ section: v })}
            />
          )}
          <Words
            label="as"
            words={kinds}
            value={as}
            onChoose={(v) => show({ as: v, page: undefined })}
          />
          <Words
            label="paper"
            words={papers}
            value={paper}
            onChoose={(v) => show({ paper: v, page: undefined })}
          />
          <Words label="way" words={ways} value={way} onChoose={(v) => show({ way: v })} />
          <Words label="look" words={looks} value={look} onChoose={(v) => show({ look: v })} />
          <Words
            label="recipes"
            words={recipes}
            value={recipe}
            onChoose={(v) => show({ recipes: v })}
          />
          <Box sx={{ display: "flex", gap: 2, mt: 2 }}>
            <Button component="a" variant="contained" href={pdf} download="sheet.pdf">
              save as PDF
            </Button>
            <Button
              component="a"
              variant="outlined"
              color="inherit"
              href={pdf}
              target="_blank"
              rel="noopener"
            >
              print (P)
            </Button>
          </Box>
          <Box sx={{ display: "flex", gap: 2, "& button": { px: 0 } }}>
            <Button
              color="inherit"
              disabled={page === "1"}
              onClick={() => show({ page: String(Number(page) - 1) })}
            >
              page before
            </Button>
            <Button color="inherit" onClick={() => show({ page: String(Number(page) + 1) })}>
              next page
            </Button>
          </Box>
          <Typography variant="caption">
            Print at 100 %, not fitted to the page: the bar on it is 50 mm.
          </Typography>
          <Button component={To} to={`/bench/${id}`} color="inherit" sx={{ px: 0 }}>
            back to the bench
          </Button>
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {failed?.of === picture ? (
            <Typography role="alert">{failed.why}</Typography>
          ) : (
            <Box
              component="img"
              key={picture}
              src={picture}
              alt={`${sheetWords[kind]} of ${content.name} on ${paper}, as it is printed`}
              onError={() => void why()}
              sx={{
                display: "block",
                maxWidth: "100%",
                maxHeight: { md: "calc(100vh - 120px)" },
                border: `1px solid ${grey.hairline}`,
              }}
            />
          )}
        </Box>
      </Box>
    </KeptShell>
  );
}
