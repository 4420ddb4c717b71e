import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, type ReactNode } from "react";
import { Link as To } from "react-router";
import { grey } from "../drawing/style";
import { useAddress } from "../parts/useAddress";
import { Setting } from "../parts/Choice";
import { Tabs } from "../parts/Tabs";

const papers = { A4: "A4", A5: "A5", Letter: "Letter" } as const;
const ways = { upright: "upright", flat: "flat" } as const;
const editions = {
  working: "outlines to paint",
  aimed: "colours aimed at",
  blank: "blank, for a class",
  key: "the key to it",
} as const;
const recipes = { parts: "parts", dabs: "counted out", none: "no recipes" } as const;
const kinds = {
  sheet: "to paint",
  plan: "in order",
  cards: "recipe cards",
  dabs: "dabs",
  all: "all of these",
} as const;

const sets = {
  "0": "one sheet",
  "10": "10 blanks and the key",
  "20": "20 blanks and the key",
  "30": "30 blanks and the key",
  "40": "40 blanks and the key",
} as const;

/** How a sheet is printed, as the address says. */
export function usePrinting() {
  const { search, show, one } = useAddress();
  const as = one<keyof typeof kinds>("as", kinds, "sheet");
  const edition = one<keyof typeof editions>("edition", editions, "working");
  return {
    search,
    show,
    paper: one<keyof typeof papers>("paper", papers, "A4"),
    way: one<keyof typeof ways>("way", ways, "upright"),
    edition,
    set: edition === "blank" ? one<keyof typeof sets>("class", sets, "0") : "0",
    recipe: one<keyof typeof recipes>("recipes", recipes, edition === "blank" ? "none" : "parts"),
    as,
    page: Number(/^[1-9]\d{0,2}$/.exec(search.get("page") ?? "")?.[0] ?? "1"),
  };
}

type Printing = ReturnType<typeof usePrinting>;

/** The same as a request asks for it. */
export const printingQuery = ({ paper, way, edition, set, recipe, as }: Printing) => ({
  paper,
  flat: String(way === "flat"),
  edition,
  ...(set !== "0" && { class: set }),
  recipes: recipe,
  as: as === "all" ? "sheet,plan,cards,dabs" : as,
});

/** The choices of how it is printed; what there is to choose depends on the sheet. */
export function PrintingChoices({ of, only }: { of: Printing; only?: "paper" }) {
  const { show } = of;
  const first = { page: undefined };
  return (
    <>
      {!only && (
        <Tabs label="as" words={kinds} value={of.as} onChoose={(as) => show({ as, ...first })} />
      )}
      <Setting
        label="paper"
        words={papers}
        value={of.paper}
        onChoose={(paper) => show({ paper, ...first })}
      />
      {!only && (
        <>
          <Setting
            label="way"
            words={ways}
            value={of.way}
            onChoose={(way) => show({ way, ...first })}
          />
          <Setting
            label="edition"
            words={editions}
            value={of.edition}
            onChoose={(edition) =>
              show({ edition, recipes: undefined, class: undefined, ...first })
            }
          />
          {of.edition === "blank" && (
            <Setting
              label="how many"
              words={sets}
              value={of.set}
              onChoose={(n) => show({ class: n === "0" ? undefined : n, ...first })}
            />
          )}
          <Setting
            label="recipes"
            words={recipes}
            value={of.recipe}
            onChoose={(v) => show({ recipes: v })}
          />
        </>
      )}
    </>
  );
}

/** One page as it is printed, and how many there are. */
const pageQuery = (address: string) => ({
  queryKey: ["paper", address],
  queryFn: async () => {
    const answer = await fetch(address);
    if (!answer.ok) {
      const problem = (await answer.json().catch(() => ({}))) as { detail?: string };
      throw new Error(problem.detail ?? "The sheet could not be drawn.");
    }
    return { svg: await answer.text(), pages: Number(answer.headers.get("Sheet-Pages")) };
  },
  retry: false,
  staleTime: Infinity,
  gcTime: 0,
});

/** A sheet as it comes out of the printer, with what is set of it at the left. */
export function Printed({
  title,
  alt,
  address,
  back,
  showAt,
  of,
  children,
}: {
  title: string;
  alt: string;
  /** Of the file, without page and format. */
  address: string;
  back: { to: string; says: string };
  /** Where it is shown to others. */
  showAt?: string;
  of: Printing;
  children: ReactNode;
}) {
  const { page, show } = of;
  const got = useQuery(pageQuery(`${address}&format=svg&page=${page}`));
  const pages = got.data?.pages ?? page;
  useLayoutEffect(() => {
    const print = (e: KeyboardEvent) => {
      if (e.key === "p" && e.target === document.body && !e.ctrlKey && !e.metaKey)
        window.open(address, "_blank", "noopener");
    };
    window.addEventListener("keydown", print);
    return () => window.removeEventListener("keydown", print);
  }, [address]);
  return (
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
        sx={{
          display: "flex",
          flexDirection: "column",
          gap: 1,
          alignItems: "flex-start",
          "& [role=radiogroup]": { flexWrap: "wrap" },
          "& [role=radio]": { whiteSpace: "nowrap" },
        }}
      >
        <Typography variant="h2">{title}, on paper</Typography>
        {children}
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 2 }}>
          <Button component="a" variant="contained" href={address} download="sheet.pdf">
            save as PDF
          </Button>
          <Button
            component="a"
            variant="outlined"
            color="inherit"
            href={address}
            target="_blank"
            rel="noopener"
          >
            print (P)
          </Button>
          <Button
            component="a"
            color="inherit"
            href={`${address}&format=svg&page=${page}`}
            download="sheet.svg"
            sx={{ px: 0 }}
          >
            as SVG
          </Button>
        </Box>
        {pages > 1 && (
          <Box sx={{ display: "flex", gap: 2, alignItems: "center", "& button": { px: 0 } }}>
            <Button
              color="inherit"
              disabled={page <= 1}
              onClick={() => show({ page: String(page - 1) })}
            >
              page before
            </Button>
            <Typography variant="caption" role="status">
              {page} of {pages}
            </Typography>
            <Button
              color="inherit"
              disabled={page >= pages}
              onClick={() => show({ page: String(page + 1) })}
            >
              next page
            </Button>
          </Box>
        )}
        <Typography variant="caption">
          Print at 100 %, not fitted to the page: the bar on it is 50 mm.
        </Typography>
        {showAt && (
          <Button component={To} to={showAt} color="inherit" sx={{ px: 0 }}>
            show it to others
          </Button>
        )}
        <Button component={To} to={back.to} color="inherit" sx={{ px: 0 }}>
          {back.says}
        </Button>
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {got.error && <Typography role="alert">{got.error.message}</Typography>}
        {got.data && (
          <Box
            component="img"
            key={address}
            src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(got.data.svg)}`}
            alt={alt}
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
  );
}
