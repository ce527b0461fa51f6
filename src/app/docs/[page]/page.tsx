import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { docsPage } from "@/server/use-cases/docs";

export const metadata: Metadata = { title: "Docs – Salty Pantry" };

/** A page of the docs, as it is in the repository. */
export default async function Page({ params }: { params: Promise<{ page: string }> }) {
  const html = await docsPage((await params).page);
  if (html === null) notFound();
  return (
    <main className="mx-auto h-full max-w-4xl overflow-auto bg-salt px-8 py-6">
      <p className="pb-4 text-second">
        <Link className="underline" href="/?all">
          All pantries
        </Link>
        {" · "}
        <Link className="underline" href="/docs/README">
          User guide
        </Link>
      </p>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: made of our own files, never of what people store */}
      <article className="docs" dangerouslySetInnerHTML={{ __html: html }} />
    </main>
  );
}
