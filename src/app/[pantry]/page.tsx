import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { NO_SUCH_PAGE } from "@/ui/views";
import { headOf } from "./head";

interface Place {
  readonly params: Promise<{ pantry: string }>;
}

export const generateMetadata = async ({ params }: Place): Promise<Metadata> =>
  (await headOf((await params).pantry)) === null ? { title: NO_SUCH_PAGE } : {};

export default async function Page({ params }: Place) {
  redirect(`/${(await params).pantry}/shelves`);
}
