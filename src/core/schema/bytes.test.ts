import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { ByteReader, ByteWriter, several } from "./bytes";
import { idFrom } from "./id";

const writer = new ByteWriter();
const back = <T>(write: (to: ByteWriter) => void, read: (from: ByteReader) => T): T => {
  write(writer);
  return read(new ByteReader().from(writer.taken().slice()));
};

describe("values as bytes", () => {
  it("come back as they were, whatever they are", () => {
    const values = [
      ...[null, true, false, 0, -0, 1, 247, 248, 255, 256, -1, -300, 2 ** 31, 2 ** 32 + 5, 2 ** 53 - 1, -(2 ** 53) + 1],
      ...[0.1, 1e300, 5e-324, -2.5, "", "salt", "Æsc ÿ", "≈ half a 🐟", "\ud800 alone", "x".repeat(20_000)],
      ...[[], [1, "a", null], { a: { b: [true] } }],
    ];
    for (const value of values)
      expect(
        back(
          (to) => to.value(value),
          (from) => from.value(),
        ),
      ).toStrictEqual(value);
  });

  it("take one byte where they are small", () => {
    const size = (value: unknown) => {
      writer.value(value);
      return writer.taken().length;
    };
    expect([0, 20, 247, 248, -1, 0.5].map(size)).toEqual([1, 1, 1, 3, 2, 9]);
  });

  it("stand one after the other, ids, texts and lists among them", () => {
    const random = seeded(3);
    const ids = Array.from({ length: 5_000 }, () =>
      idFrom(Math.floor(random() * 36 ** 6), Math.floor(random() * 36 ** 6)),
    );
    // The same again and again in between, as types come again in every item.
    const all = ids.flatMap((id, n) => [id, n % 3 ? ids[n % 7] : null]);
    const read = back(
      (to) => {
        to.whole(all.length);
        for (const id of all) to.id(id);
        to.text("tide");
        to.whole(2 ** 40);
      },
      (from) => ({ ids: several(from, () => from.id()), text: from.text(), whole: from.whole() }),
    );
    expect(read).toEqual({ ids: all, text: "tide", whole: 2 ** 40 });
  });
});
