import { expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { distance, fold, lettersOf, nearness } from "./names";

it("near names are those within a third of the length, however few are looked at closely", () => {
  const random = seeded(4);
  const word = (most: number) =>
    Array.from({ length: 1 + Math.floor(random() * most) }, () => "aelst r"[Math.floor(random() * 7)]).join("");
  let near = 0;
  for (let n = 0; n < 3000; n++) {
    const [typed, name] = [word(12), word(12)].map(fold);
    if (!typed) continue;
    const limit = Math.max(1, Math.floor(typed.length / 3));
    const begins = typed.length > 2 && (name.startsWith(typed) || typed.startsWith(name));
    const d = begins ? 1 : distance(typed, name, limit);
    expect(nearness(typed)(name, lettersOf(name)), `${typed} ${name}`).toBe(d <= limit ? d : null);
    if (d <= limit) near++;
  }
  expect(near).toBeGreaterThan(100);
  expect(nearness("x".repeat(200))("x")).toBeNull();
});
