"use client";
/** Shown in place of a view or page that failed. A plain link: the page is loaded again, whatever failed in it. */
import { Button, Empty } from "../kit/kit";

export function Failed() {
  return (
    <div role="alert" className="flex h-full flex-col justify-center">
      <Empty
        title="This page could not be shown"
        action={
          <p className="flex items-center gap-3">
            <Button look="solid" onClick={() => window.location.reload()}>
              Try again
            </Button>
            <a className="underline" href="/?all">
              See all pantries
            </a>
          </p>
        }
      >
        Your saved work is safe. If this happens again, undo the last change in the Log, or ask the administrator to
        check the server's log.
      </Empty>
    </div>
  );
}
