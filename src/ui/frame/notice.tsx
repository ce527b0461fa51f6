"use client";
/** A refusal or a conflict, with both values and the ways out. Stays until it is answered. */
import { Dialog } from "radix-ui";
import { sayValue } from "@/core/catalogue/say-value";
import { fieldWord } from "@/core/catalogue/edit";
import { Button } from "../kit/kit";
import { useStore, useView } from "../pantry/provider";

export function NoticeCard() {
  const store = useStore();
  const notice = useView((v) => v.notice);
  const state = useView((v) => (v.notice ? v.state : null));
  if (!notice) return null;
  return (
    <Dialog.Root open modal={false} onOpenChange={(open) => !open && store.dismiss()}>
      <Dialog.Content
        role="alertdialog"
        // It stays until it is answered, beside whatever is done meanwhile.
        onInteractOutside={(e) => e.preventDefault()}
        className="fixed right-4 bottom-14 z-40 w-[420px] rounded-sm border border-beet bg-salt p-4 shadow-xl"
      >
        <Dialog.Title className="text-[14px] text-beet">{notice.title}</Dialog.Title>
        <Dialog.Description className="mt-1">{notice.message}</Dialog.Description>
        {state &&
          notice.conflicts
            .filter((c) => c.field !== "record")
            .map((c) => (
              <dl key={c.id + c.field} className="mt-2 grid grid-cols-[70px_1fr] gap-x-2 border-t border-hair pt-2">
                <dt className="head col-span-2">
                  {c.name}: {fieldWord(state.catalogue, c.kind, c.field)}
                </dt>
                <dt className="text-second">theirs</dt>
                <dd className="font-semibold">{sayValue(state.catalogue, c.kind, c.field, c.theirs)}</dd>
                <dt className="text-second">yours</dt>
                <dd className="font-semibold">{sayValue(state.catalogue, c.kind, c.field, c.yours)}</dd>
              </dl>
            ))}
        <div className="mt-3 flex gap-2">
          <Button look="solid" onClick={store.dismiss} autoFocus>
            {notice.insist ? "Keep theirs" : "OK"}
          </Button>
          {notice.insist && <Button onClick={notice.insist}>Use mine</Button>}
        </div>
      </Dialog.Content>
    </Dialog.Root>
  );
}
