import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { Shell } from "@/ui/frame/shell";
import { headOf } from "./head";

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ pantry: string }>;
}) {
  const { pantry } = await params;
  if ((await headOf(pantry)) === null) notFound();
  return (
    <Shell key={pantry} pantry={pantry}>
      {children}
    </Shell>
  );
}
