import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { ALL_VIEWS, titleOf } from "@/ui/views";
import { headOf } from "../head";

interface Place {
  readonly params: Promise<{ pantry: string; view: string }>;
}

export async function generateMetadata({ params }: Place): Promise<Metadata> {
  const { pantry, view } = await params;
  return { title: titleOf(view, (await headOf(pantry))?.name) };
}

/** Looked at here, before anything of the page is sent: later the answer could not say 404 any more. */
export default async function Layout({ params, children }: Place & { children: ReactNode }) {
  const { view } = await params;
  return ALL_VIEWS.some(({ name }) => name === view) ? children : notFound();
}
