import Box from "@mui/material/Box";
import type { Schemas } from "../api/client";
import { grey } from "../drawing/style";

type Way = "desk" | "home" | "tls";

const ways: Record<Way, string> = {
  desk: "on this machine",
  home: "at home, plain",
  tls: "with TLS",
};

/** What a browser allows where. A page that comes by plain HTTP is not let keep itself or the screen awake. */
const works: { what: string; home: boolean }[] = [
  { what: "every place, the sitting, the camera, sheets", home: true },
  { what: "what is tapped is kept while the connection is lost and the page is open", home: true },
  { what: "the page opens without a connection", home: false },
  { what: "it stands among the phone’s own programs", home: false },
  { what: "the screen stays awake in a sitting", home: false },
  { what: "nobody in the same network can listen", home: false },
];

export const wayOf = (access: Schemas["Access"]): Way =>
  access.listener === "public" || access.home.tls ? "tls" : "home";

/** What works over each way to the server; the one by which the phone comes stands out. */
export function WhatWorks({ way }: { way: Way | null }) {
  const cell = (of: Way) => ({
    p: "8px 12px",
    textAlign: "left",
    fontWeight: of === way ? 600 : 400,
    ...(of === way && { bgcolor: grey.track }),
  });
  return (
    <Box
      component="table"
      sx={{
        width: "100%",
        borderCollapse: "collapse",
        fontSize: 15,
        lineHeight: "20px",
        "& th, & td": { borderBottom: `1px solid ${grey.hairline}`, verticalAlign: "top" },
      }}
    >
      <thead>
        <tr>
          <Box component="th" scope="col" sx={{ textAlign: "left", p: "8px 12px 8px 0" }}>
            what works
          </Box>
          {(Object.keys(ways) as Way[]).map((of) => (
            <Box component="th" scope="col" key={of} sx={cell(of)}>
              {ways[of]}
            </Box>
          ))}
        </tr>
      </thead>
      <tbody>
        {works.map(({ what, home }) => (
          <tr key={what}>
            <Box
              component="th"
              scope="row"
              sx={{ textAlign: "left", fontWeight: 400, p: "8px 12px 8px 0" }}
            >
              {what}
            </Box>
            {(Object.keys(ways) as Way[]).map((of) => (
              <Box component="td" key={of} sx={cell(of)}>
                {home || of !== "home" ? "yes" : "no"}
              </Box>
            ))}
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
