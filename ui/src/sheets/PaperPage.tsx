import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Profile } from "../api/client";
import { wheelQuery } from "../api/queries";
import { KeptShell, MissingWheel } from "../app/Kept";
import { choicesOf, OneOf } from "../parts/Choice";
import { ofOneSlot, plainSettings, sheetWords } from "../parts/choices";
import { SheetParts } from "../parts/SheetParts";
import { useAddress } from "../parts/useAddress";
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
  const slot = search.get("slot") ?? "0";
  const section = search.get("section") ?? "0";
  const [a, b, steps] = [search.get("a"), search.get("b"), search.get("steps")];
  const way = kind === "ladder" && a && b ? { a, b } : undefined;
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;
  const ofSlot = ofOneSlot.includes(kind);
  const [without, plus] = [search.get("without") ?? "", search.get("with") ?? ""];
  const slots = (wheel.data?.slots ?? []).filter((s) => !s.empty);
  const ladders = (wheel.data?.sections ?? []).flatMap((s, k) =>
    s.from && s.to ? [{ value: String(k), name: `${s.from} to ${s.to}` }] : [],
  );
  if (way) ladders.unshift({ value: "way", name: "the path you came from" });
  const query = new URLSearchParams({
    kind,
    slot,
    section,
    ...(way ?? {}),
    ...(kind === "ladder" && steps ? { steps } : {}),
    ...(kind === "worksheet" && without ? { without } : {}),
    ...(kind === "worksheet" && plus ? { with: plus } : {}),
    ...printingQuery(of),
    measure,
    ...(size ? { one: String(size) } : {}),
    v: String(own.kept?.version ?? 0), // what is kept decides too: a new version is another picture
  });
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
        of={of}
      >
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
        {kind === "worksheet" && (
          <SheetParts
            without={without.split(",")}
            plus={plus.split(",")}
            onChange={(out, added) =>
              show({
                without: out.join() || undefined,
                with: added.join() || undefined,
                page: undefined,
              })
            }
          />
        )}
        {kind === "ladder" && (
          <OneOf
            label="of the section"
            shown={ladders.find((w) => w.value === (way ? "way" : section))?.name ?? ""}
            of={ladders}
            value={way ? "way" : section}
            onChoose={(v) => v !== "way" && show({ section: v, a: undefined, b: undefined })}
          />
        )}
        <PrintingChoices of={of} />
      </Printed>
    </KeptShell>
  );
}
