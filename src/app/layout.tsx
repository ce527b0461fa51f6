import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import "./globals.css";

export const metadata: Metadata = {
  title: "Salty Pantry",
  description: "A shared item database with a recipe graph that is checked at every edit.",
};

// Libraries that put a style into the page look for its nonce under this name.
const theme = `window.__webpack_nonce__=document.currentScript.nonce;try{if(localStorage.getItem("salty-theme")==="night")document.documentElement.dataset.theme="night"}catch{}`;

/** Every page is made again for each request: its scripts carry the nonce of that answer (proxy.ts). */
export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sets the theme before the first paint */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: theme }} />
      </head>
      <body>{children}</body>
    </html>
  );
}
