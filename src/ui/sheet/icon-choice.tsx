"use client";
/** The icon of an item, and the choice of another. */
import { useQuery } from "@tanstack/react-query";
import { Upload } from "lucide-react";
import { useRef, useState } from "react";
import { held } from "@/core/catalogue/inheritance";
import type { Item } from "@/core/kinds/index";
import { Icon } from "../kit/jars";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { findIcons } from "../pantry/api";
import { useLive, useStore } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";

export function IconChoice({ item, colour }: { item: Item; colour: string }) {
  const { catalogue } = useLive();
  const write = useWrite();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const store = useStore();
  const query = text || item.name.split(" ").at(-1) || "fish";
  const { data } = useQuery({
    queryKey: ["icons", query],
    enabled: open,
    queryFn: () => findIcons(query),
  });
  const icon = held(catalogue, item, "icon");
  const bring = async (chosen: File) => {
    const got = await store.api.bringPicture(new Uint8Array(await chosen.arrayBuffer()));
    if (!got.ok) return setMessage(got.problem.detail);
    setMessage(null);
    pick(got.value.icon);
  };
  const pick = (name: string) => {
    setOpen(false);
    void write("item", item.id, "icon", name);
  };
  return (
    <Popup
      button={(opener) => (
        <button
          type="button"
          aria-label={`Icon: ${icon.value ?? "none"}. Choose another`}
          className="grid size-14 shrink-0 place-items-center rounded-sm border border-line bg-shade hover:border-third"
          style={{ color: colour }}
          {...opener}
        >
          <Icon name={icon.value} size={38} />
        </button>
      )}
      align="start"
      label="Choose an icon"
      className="w-72"
      open={open}
      onOpen={setOpen}
    >
      <input
        className="field"
        aria-label="Search icons"
        placeholder={`such as ${query}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="mt-2 grid max-h-56 grid-cols-6 gap-1 overflow-auto">
        {data?.map((name) => (
          <button
            key={name}
            type="button"
            aria-label={name}
            title={name}
            onClick={() => pick(name)}
            className="grid size-10 place-items-center rounded-sm hover:bg-pick"
          >
            <Icon name={name} size={26} />
          </button>
        ))}
      </div>
      {data?.length === 0 && (
        <p className="text-second">No icon found for “{query}”. Try a simpler word, such as fish, rope or jar.</p>
      )}
      <div className="mt-2 flex items-center gap-2">
        <Button onClick={() => file.current?.click()}>
          <Upload size={14} aria-hidden /> Your own picture
        </Button>
        <span className="text-[12px] text-second">PNG, WebP or SVG, up to 256 kB</span>
        <input
          ref={file}
          type="file"
          aria-label="Picture file"
          accept="image/png,image/webp,image/svg+xml"
          className="hidden"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = "";
            if (chosen) void bring(chosen);
          }}
        />
      </div>
      {message && (
        <p role="alert" className="mt-1 text-beet">
          {message}
        </p>
      )}
      {item.icon && (
        <button type="button" className="mt-2 underline" onClick={() => pick("")}>
          Reset to the icon of its type
        </button>
      )}
    </Popup>
  );
}
