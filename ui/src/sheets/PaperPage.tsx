import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Profile } from "../api/client";
import { wheelQuery } from "../api/queries";
import { classRoundsQuery } from "../api/together";
import { KeptShell, MissingWheel } from "../app/Kept";
import { Setting } from "../parts/Choice";
import { dayAndTime } from "../parts/dates";
import { plainSettings, sheetWords } from "../parts/choices";
import { sheetAddress, sheetIn } from "../parts/sheet";
import { showItAt } from "../parts/showing";
import { SheetChoice } from "../parts/SheetChoice";
import { relisted, toggled, useAddress } from "../parts/useAddress";
import { useKeptWheel } from "../parts/useKeptWheel";
import { useMeasure } from "../parts/useMeasure";
import { Waiting } from "../parts/Waiting";
import { Printed, PrintingChoices, printingQuery, usePrinting } from "./Printed";

const nothing = { kind: "triad" as const, roles: [], chosen: [], riders: {}, note: "" };

export function PaperPage({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OnePaper key={id} id={id} painter={painter} />;
}

/** A sheet of a kept wheel on paper. */
function OnePaper({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content } = own;
  const { one } = useAddress();
  const of = usePrinting();
  const { search, show } = of;
  const kept = content?.settings ?? plainSettings;
  const { measure, size } = useMeasure(kept.medium);
  const wheel = useQuery({
    ...wheelQuery(id, content?.system ?? nothing, kept),
    enabled: !!content,
  });
  const kind = one<keyof typeof sheetWords>("sheet", sheetWords, "wheel");
  const sheet = sheetIn(search, kind);
  const classes = useQuery({ ...classRoundsQuery, enabled: of.edition === "blank" });
  const rounds = (classes.data?.rounds ?? []).filter((r) => r.wheel === id && !r.ended);
  const asked = search.get("round") ?? "0";
  const round = rounds.some((r) => String(r.id) === asked) ? asked : "0";
  const way = kind === "ladder" && sheet.a && sheet.b ? { a: sheet.a, b: sheet.b } : undefined;
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;
  const query = new URLSearchParams({
    kind,
    ...printingQuery(of),
    measure,
    ...(of.edition === "blank" && round !== "0" && { round }),
    ...(size ? { one: String(size) } : {}),
    v: String(own.kept?.version ?? 0), // what is kept decides too: a new version is another picture
  });
  for (const [name, said] of Object.entries(sheetAddress(sheet)))
    if (said && name !== "sheet") query.set(name, said);
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="bench">
      <Printed
        title={content.name}
        alt={`${sheetWords[kind]} of ${content.name} on ${of.paper}, as it is printed`}
        address={`/api/wheels/${id}/paper?${query}`}
        back={
          way
            ? { to: `/path/${id}?${new URLSearchParams(way)}`, says: "back to the path" }
            : { to: `/bench/${id}`, says: "back to the bench" }
        }
        showAt={`${showItAt(kept, "sheet", id)}&sheet=${encodeURIComponent(query.toString())}`}
        of={of}
      >
        <SheetChoice
          sheet={sheet}
          slots={wheel.data?.slots ?? []}
          sections={wheel.data?.sections ?? []}
          onShow={(next) => show({ ...sheetAddress(next), page: undefined })}
          onTurn={(list, part) => show({ ...relisted(list, toggled(part)), page: undefined })}
        />
        <PrintingChoices of={of} />
        {of.edition === "blank" && rounds.length > 0 && (
          <Setting
            label="round"
            words={{
              "0": "no round on it",
              ...Object.fromEntries(
                rounds.map((r) => [
                  String(r.id),
                  `to predict along, ${dayAndTime.format(new Date(r.made))}`,
                ]),
              ),
            }}
            value={round}
            onChoose={(r) => show({ round: r === "0" ? undefined : r, page: undefined })}
          />
        )}
      </Printed>
    </KeptShell>
  );
}
