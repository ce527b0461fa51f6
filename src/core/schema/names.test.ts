import { expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { distance, normalise, lettersOf, NearNames, nearness } from "./names";

it("near names are those within a third of the length, however few are looked at closely", () => {
  const random = seeded(4);
  const word = (most: number) =>
    Array.from({ length: 1 + Math.floor(random() * most) }, () => "aelst r"[Math.floor(random() * 7)]).join("");
  let near = 0;
  for (let n = 0; n < 3000; n++) {
    const [typed, name] = [word(12), word(12)].map(normalise);
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

it("near names among many are the same, whatever came and went", () => {
  const random = seeded(6);
  const word = () =>
    Array.from({ length: 1 + Math.floor(random() * 8) }, () => "aelst"[Math.floor(random() * 5)]).join("");
  const names = new Set<string>();
  const near = new NearNames();
  for (let n = 0; n < 2000; n++) {
    const name = word();
    if (random() < 0.4) {
      names.delete(name);
      near.take(name);
    } else {
      names.add(name);
      near.put(name);
    }
    if (n % 50) continue;
    const typed = word();
    const wanted = [...names].flatMap((of) => (nearness(typed)(of) === null ? [] : [`${of} ${nearness(typed)(of)}`]));
    expect([...near.near(typed)].map((found) => found.join(" ")).sort()).toEqual(wanted.sort());
  }
});
