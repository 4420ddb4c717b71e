import babel from "@rolldown/plugin-babel";
import react, { reactCompilerPreset } from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  // React's compiler: what did not change is not drawn anew. It costs half a minute of a build and saves a
  // quarter of what a browser works.
  plugins: [react(), babel({ presets: [reactCompilerPreset()], sourceMap: false })],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { outDir: "dist", emptyOutDir: true, assetsInlineLimit: 0 },
});
