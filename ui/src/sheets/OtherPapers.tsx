import type { Profile } from "../api/client";
import { Shell } from "../app/Shell";
import { useView } from "../parts/useView";
import { Printed, PrintingChoices, printingQuery, usePrinting } from "./Printed";

/** The palette guide of the box on paper. */
export function BoxPaperPage({ painter }: { painter: Profile }) {
  const of = usePrinting();
  const { view } = useView();
  const query = new URLSearchParams({ medium: view.medium, ...printingQuery(of) });
  return (
    <Shell
      painter={painter}
      title="The box, on paper"
      viewed={{ view: view, onSet: (v) => of.show(v) }}
    >
      <Printed
        title="The box"
        alt={`the palette guide of the box on ${of.paper}, as it is printed`}
        address={`/api/box/paper?${query}`}
        back={{ to: "/box", says: "back to the box" }}
        of={of}
      >
        <PrintingChoices of={of} />
      </Printed>
    </Shell>
  );
}

/** Systems side by side on paper. */
export function ComparePaperPage({ painter }: { painter: Profile }) {
  const of = usePrinting();
  const { view } = useView();
  const systems = of.search.get("systems") ?? "";
  const query = new URLSearchParams({ wheels: systems, ...view, paper: of.paper });
  return (
    <Shell
      painter={painter}
      title="Systems, on paper"
      viewed={{ view: view, onSet: (v) => of.show(v) }}
    >
      <Printed
        title="Side by side"
        alt={`systems side by side on ${of.paper}, as it is printed`}
        address={`/api/compare/paper?${query}`}
        back={{ to: `/compare?systems=${systems}`, says: "back to comparing" }}
        of={of}
      >
        <PrintingChoices of={of} only="paper" />
      </Printed>
    </Shell>
  );
}
