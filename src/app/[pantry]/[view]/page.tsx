import { notFound } from "next/navigation";
import { View } from "@/ui/view-components";
import { ALL_VIEWS } from "@/ui/views";

export default async function Page({ params }: { params: Promise<{ view: string }> }) {
  const { view } = await params;
  const known = ALL_VIEWS.find(({ name }) => name === view);
  return known ? <View name={known.name} /> : notFound();
}
