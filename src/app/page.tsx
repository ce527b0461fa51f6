import { redirect } from "next/navigation";
import { host } from "@/server/host";
import { PantryList } from "@/ui/frame/pantry-list";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ all?: string }> }) {
  const pantries = await (await host()).summaries();
  if (pantries.length === 1 && (await searchParams).all === undefined) redirect(`/${pantries[0].key}/shelves`);
  return <PantryList pantries={pantries.map(({ id: _, ...pantry }) => pantry)} />;
}
