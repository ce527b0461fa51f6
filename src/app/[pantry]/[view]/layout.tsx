import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { ALL_VIEWS, NO_SUCH_PAGE, titleOf } from "@/ui/views";
import { headOf } from "../head";

interface Place {
  readonly params: Promise<{ pantry: string; view: string }>;
}
const isView = (view: string): boolean => ALL_VIEWS.some(({ name }) => name === view);

export async function generateMetadata({ params }: Place): Promise<Metadata> {
  const { pantry, view } = await params;
  const head = await headOf(pantry);
  return { title: head === null || !isView(view) ? NO_SUCH_PAGE : titleOf(view, head?.name) };
}

export default async function Layout({ params, children }: Place & { children: ReactNode }) {
  return isView((await params).view) ? children : notFound();
}
