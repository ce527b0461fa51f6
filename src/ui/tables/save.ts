"use client";

/** Gives a file to the person in front of the browser. */
export function save(name: string, content: string | Uint8Array): void {
  const part = typeof content === "string" ? content : content.slice().buffer;
  const address = URL.createObjectURL(new Blob([part]));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  // The browser needs the address until it has begun to write.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
