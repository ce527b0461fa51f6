import type { ReactNode } from "react";
import { Shell } from "@/ui/frame/shell";

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ pantry: string }>;
}) {
  const { pantry } = await params;
  return (
    <Shell key={pantry} pantry={pantry}>
      {children}
    </Shell>
  );
}
