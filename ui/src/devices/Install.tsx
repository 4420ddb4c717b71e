import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { QRCodeSVG } from "qrcode.react";
import type { Schemas } from "../api/client";
import { figures, grey } from "../drawing/style";

/** How the certificate of the server's own authority gets onto a phone, once. */
export function Install({ home }: { home: Schemas["AtHome"] }) {
  return (
    <section aria-label="install the certificate">
      <Typography variant="h3" sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 2 }}>
        Once on each phone, before the code
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 3, mt: 1.5 }}>
        <Box sx={{ bgcolor: "#fff", p: "16px", flex: "none" }}>
          <QRCodeSVG
            value={home.authority}
            size={4 * 33}
            minVersion={4}
            title="where the certificate is"
            style={{ display: "block" }}
          />
        </Box>
        <Box component="ol" sx={{ m: 0, pl: 2.5, flex: "1 1 280px", "& li": { mb: 0.75 } }}>
          <li>
            Point the camera here, or open <Figure>{home.authority}</Figure>: the phone takes the
            certificate.
          </li>
          <li>
            Install it in the settings, as a profile or under <i>security</i>,{" "}
            <i>install a certificate</i>, <i>CA certificate</i>. Some phones also want to be told to
            trust it: <i>general</i>, <i>about</i>, <i>certificate trust</i>.
          </li>
          <li>
            Compare its SHA-256 with this one before you trust it. It can vouch for private
            addresses alone.
          </li>
        </Box>
      </Box>
      <Box sx={{ mt: 1, overflowWrap: "anywhere" }}>
        <Figure>{home.fingerprint}</Figure>
      </Box>
    </section>
  );
}

function Figure({ children }: { children: string }) {
  return (
    <Box component="span" sx={{ fontFamily: figures, fontSize: 13, overflowWrap: "anywhere" }}>
      {children}
    </Box>
  );
}
