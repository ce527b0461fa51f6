"use client";
import { Failed } from "@/ui/frame/failed";
import "./globals.css";

/** Where the frame of all pages itself failed: it brings a page of its own. */
export default function Failure() {
  return (
    <html lang="en">
      <body className="h-screen">
        <title>Salty Pantry</title>
        <Failed />
      </body>
    </html>
  );
}
