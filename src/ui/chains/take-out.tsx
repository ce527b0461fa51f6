"use client";
/** A chain as a file. */
import { useState } from "react";
import { chainDot, chainGraphml, chainSvg, type NodeWords } from "@/core/chains/written";
import { save } from "../tables/save";
import type { Drawn } from "./use-layout";

/** Pixels that a browser draws without trouble. */
const LARGEST = 8_000;

export function TakeOut({ drawn, named, name }: { drawn: Drawn; named: NodeWords; name: string }) {
  const [message, setMessage] = useState("");
  const { chain, layout } = drawn;
  const svg = () => chainSvg(chain, layout, named);
  const formats: { readonly [format: string]: () => void | Promise<void> } = {
    SVG: () => save(`${name}-chain.svg`, svg()),
    PNG: async () => save(`${name}-chain.png`, await pngOf(svg(), layout.width, layout.height)),
    GraphML: () => save(`${name}-chain.graphml`, chainGraphml(chain, named)),
    DOT: () => save(`${name}-chain.dot`, chainDot(chain, named)),
  };
  const take = async (format: string) => {
    setMessage("");
    try {
      await formats[format]();
    } catch {
      setMessage("This picture is too large for the browser. Export it as SVG.");
    }
  };
  return (
    <span className="flex items-center gap-1.5">
      {message && (
        <span role="alert" className="text-beet">
          {message}
        </span>
      )}
      <select
        aria-label="Export the chain"
        className="field w-auto!"
        value=""
        onChange={(e) => e.target.value && void take(e.target.value)}
      >
        <option value="">Export</option>
        {Object.keys(formats).map((format) => (
          <option key={format}>{format}</option>
        ))}
      </select>
    </span>
  );
}

async function pngOf(svg: string, width: number, height: number): Promise<Uint8Array> {
  const scale = Math.min(2, LARGEST / Math.max(width, height));
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [Math.ceil(width * scale), Math.ceil(height * scale)];
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
  if (!blob) throw new Error("The picture could not be created.");
  return new Uint8Array(await blob.arrayBuffer());
}
