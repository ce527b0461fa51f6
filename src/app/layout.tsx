import type { Metadata } from "next";
import type { ReactNode } from "react";
import "./globals.css";

export const metadata: Metadata = { title: "Salty Pantry", description: "A shared item database with a recipe graph that is checked at every edit." };

const theme = `try{if(localStorage.getItem("salty-theme")==="night")document.documentElement.dataset.theme="night"}catch{}`;

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sets the theme before the first paint */}
        <script dangerouslySetInnerHTML={{ __html: theme }} />
      </head>
      <body>{children}</body>
    </html>
  );
}
