import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { View } from "@/ui/view-components";
import { ALL_VIEWS, NO_SUCH_PAGE, titleOf } from "@/ui/views";
import { headOf } from "../head";

interface Place {
  readonly params: Promise<{ pantry: string; view: string }>;
}
const viewCalled = (view: string) => ALL_VIEWS.find(({ name }) => name === view);

export async function generateMetadata({ params }: Place): Promise<Metadata> {
  const { pantry, view } = await params;
  const head = await headOf(pantry);
  return { title: head === null || !viewCalled(view) ? NO_SUCH_PAGE : titleOf(view, head?.name) };
}

export default async function Page({ params }: Place) {
  const known = viewCalled((await params).view);
  return known ? <View name={known.name} /> : notFound();
}
