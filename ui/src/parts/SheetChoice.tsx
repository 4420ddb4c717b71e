import { useQuery } from "@tanstack/react-query";
import type { BenchSheet, Section, Slot } from "../api/client";
import { boxQuery, paintsQuery } from "../api/queries";
import { choicesOf, OneOf } from "./Choice";
import {
  filmWords,
  ofOneSlot,
  partWords,
  plainSettings,
  readingWords,
  sheetWords,
  surerWords,
} from "./choices";
import { nameOf } from "./naming";
import { SheetParts } from "./SheetParts";

/** What is painted: the wheel, or another sheet of the same system, and what it is painted of. */
export function SheetChoice({
  sheet,
  slots,
  sections,
  onShow,
  onTurn,
}: {
  sheet: BenchSheet;
  slots: Slot[];
  sections: Section[];
  onShow: (next: BenchSheet) => void;
  /** A part of it that is left out or added, or no more. */
  onTurn: (list: "without" | "with", one: string) => void;
}) {
  const kind = (sheet.kind || "wheel") as keyof typeof sheetWords;
  const plus = sheet.with ?? [];
  const extras = kind === "wheel" || kind === "worksheet";
  const of = slots.filter((s) => !s.empty).map((s) => ({ value: String(s.index), name: s.name }));
  const slot = sheet.slot ?? 0;
  const bit = sheet.bit === undefined || sheet.bit === slot ? slots[slot]?.complement : sheet.bit;
  const way = kind === "ladder" && !!sheet.a && !!sheet.b;
  const ladders = sections.flatMap((s, k) =>
    s.from && s.to ? [{ value: String(k), name: `${s.from} to ${s.to}` }] : [],
  );
  if (way) ladders.unshift({ value: "way", name: "the path you came from" });
  const ladder = way ? "way" : String(sheet.section ?? 0);
  return (
    <>
      <OneOf
        label={`sheet: ${kind}`}
        bold
        shown={sheetWords[kind]}
        of={choicesOf(sheetWords)}
        value={kind}
        onChoose={(next) => onShow({ kind: next, slot: sheet.slot })}
      />
      {(extras || partWords[kind]) && (
        <SheetParts kind={kind} without={sheet.without ?? []} plus={plus} onTurn={onTurn} />
      )}
      {(ofOneSlot.includes(kind) || (extras && plus.some((p) => p !== "dark"))) && (
        <OneOf
          label="of the slot"
          shown={`of ${slots[slot]?.name ?? ""}`}
          of={of}
          value={String(slot)}
          onChoose={(v) => onShow({ ...sheet, slot: Number(v) })}
        />
      )}
      {extras && plus.includes("earth") && (
        <OnePaint
          label="its neighbours are mixed from"
          usual="the nearest earth"
          value={sheet.earth}
          onChoose={(earth) => onShow({ ...sheet, earth })}
        />
      )}
      {extras && plus.includes("tube") && (
        <OnePaint
          label="beside it stands"
          usual="what looks most like it"
          value={sheet.tube}
          onChoose={(tube) => onShow({ ...sheet, tube })}
        />
      )}
      {extras && plus.includes("bit") && (
        <OneOf
          label="a bit of which"
          shown={`a bit of ${slots[bit ?? -1]?.name ?? ""}`}
          of={of.filter((o) => o.value !== String(slot))}
          value={String(bit)}
          onChoose={(v) => onShow({ ...sheet, bit: Number(v) })}
        />
      )}
      {kind === "swatches" && (
        <>
          <OneOf
            label="what they make surer"
            shown={surerWords[sheet.ofBox ? "box" : "wheel"]}
            of={choicesOf(surerWords)}
            value={sheet.ofBox ? "box" : "wheel"}
            onChoose={(of) => onShow({ ...sheet, ofBox: of === "box" || undefined })}
          />
          <OneOf
            label="what they are read by"
            shown={readingWords[(sheet.readBy ?? "photo") as keyof typeof readingWords] ?? ""}
            of={choicesOf(readingWords)}
            value={(sheet.readBy ?? "photo") as keyof typeof readingWords}
            onChoose={(by) => onShow({ ...sheet, readBy: by === "photo" ? undefined : by })}
          />
        </>
      )}
      {kind === "glazes" && (
        <>
          <OneOf
            label="how thick each glaze lies"
            shown={`each ${sheet.film ?? 0.3} thick`}
            of={choicesOf(filmWords).map((f) => ({ ...f, name: `${f.value}, ${f.name}` }))}
            value={String(sheet.film ?? 0.3) as keyof typeof filmWords}
            onChoose={(film) =>
              onShow({ ...sheet, film: film === "0.3" ? undefined : Number(film) })
            }
          />
          {!sheet.without?.includes("ramp") && (
            <OnePaint
              label="over the others lies"
              usual="the clearest of them"
              value={sheet.glaze}
              onChoose={(glaze) => onShow({ ...sheet, glaze })}
            />
          )}
        </>
      )}
      {kind === "ladder" && (
        <OneOf
          label="of the section"
          shown={ladders.find((l) => l.value === ladder)?.name ?? ""}
          of={ladders}
          value={ladder}
          onChoose={(v) =>
            v !== "way" && onShow({ ...sheet, section: Number(v), a: undefined, b: undefined })
          }
        />
      )}
    </>
  );
}

/** A paint of the box or of the library, or what is usual. */
function OnePaint({
  label,
  usual,
  value,
  onChoose,
}: {
  label: string;
  usual: string;
  value?: string;
  onChoose: (id: string | undefined) => void;
}) {
  const box = useQuery(boxQuery(plainSettings));
  const library = useQuery(paintsQuery(plainSettings));
  const of = [
    { value: "", name: usual },
    ...(box.data?.tubes ?? []).map((t) => ({ value: t.paint.id, name: nameOf(t) })),
    ...(library.data ?? []).map((p) => ({ value: p.id, name: `${p.id} ${p.shortName}` })),
  ];
  const now = value ?? "";
  return (
    <OneOf
      label={label}
      shown={of.find((o) => o.value === now)?.name ?? now}
      of={of}
      value={now}
      ready={!!library.data && !!box.data}
      onChoose={(id) => onChoose(id || undefined)}
    />
  );
}
