import type { Schemas } from "../api/client";

/** Where others reach this server: at home under its own address, else as this page does. */
export const outside = (access: Schemas["Access"] | undefined): string =>
  (access?.listener === "loopback" && access.home.address) || window.location.origin;

/** Whether nobody else reaches it. */
export const alone = (access: Schemas["Access"] | undefined): boolean =>
  access?.listener === "loopback" && !access.home.address;
