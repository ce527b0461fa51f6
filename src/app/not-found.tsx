import type { Metadata } from "next";
import Link from "next/link";
import { NO_SUCH_PAGE } from "@/ui/views";

export const metadata: Metadata = { title: NO_SUCH_PAGE };

export default function NotFound() {
  return (
    <main className="mx-auto flex h-screen max-w-xl flex-col justify-center gap-3 p-6">
      <h1 className="text-2xl">No such page</h1>
      <p className="text-second">
        There is no pantry or view at this address. The pantry may have been deleted or renamed, or part of the address
        is missing.
      </p>
      <p>
        <Link className="underline" href="/?all">
          See all pantries
        </Link>
      </p>
    </main>
  );
}
