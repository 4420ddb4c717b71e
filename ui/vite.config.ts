import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { outDir: "dist", emptyOutDir: true, assetsInlineLimit: 0 },
});
