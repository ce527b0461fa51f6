"use client";
/** What is shown in the place of a view or page that failed while it was drawn. */
import Link from "next/link";
import { Button, Empty } from "../kit/kit";

export function Failed({ again }: { again: () => void }) {
  return (
    <div role="alert" className="flex h-full flex-col justify-center">
      <Empty title="This view failed">
        Nothing that was saved is lost. Try it again; if it fails again, take back your last change from the Log, or
        reload the window.
      </Empty>
      <p className="flex justify-center gap-2">
        <Button look="solid" onClick={again}>
          Try again
        </Button>
        <Link className="self-center underline" href="/?all">
          All pantries
        </Link>
      </p>
    </div>
  );
}
