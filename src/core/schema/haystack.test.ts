import { expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { Haystack } from "./haystack";
import type { Id } from "./id";

it("finds what looking into each text finds, whatever came and went", () => {
  const random = seeded(9);
  const text = () => Array.from({ length: Math.floor(random() * 9) }, () => "ab\n"[Math.floor(random() * 3)]).join("");
  const texts = new Map<Id, string>(Array.from({ length: 300 }, (_, k) => [`t${k}` as Id, text()]));
  const haystack = new Haystack(texts);
  for (let n = 0; n < 4000; n++) {
    const id = `t${Math.floor(random() * 2500)}` as Id;
    if (random() < 0.3) {
      texts.delete(id);
      haystack.take(id);
    } else {
      texts.set(id, text());
      haystack.put(id, texts.get(id) as string);
    }
    if (n % 40) continue;
    for (const part of ["a", "ab", "a\nb", "bbb", "\n"])
      expect([...haystack.find(part)].sort()).toEqual(
        [...texts].flatMap(([of, t]) => (t.includes(part) ? [of] : [])).sort(),
      );
  }
  expect(new Haystack([]).find("a").size).toBe(0);
});

it("has the first in order among the few that suffice, whatever came and went", () => {
  const random = seeded(4);
  const compare = (a: string, b: string) => a.length - b.length || (a < b ? -1 : a > b ? 1 : 0);
  const text = () =>
    Array.from({ length: 1 + Math.floor(random() * 9) }, () => "abc"[Math.floor(random() * 3)]).join("");
  const texts = new Map<Id, string>(Array.from({ length: 200 }, (_, k) => [`t${k}` as Id, text()]));
  const haystack = new Haystack(texts, compare);
  for (let n = 0; n < 3000; n++) {
    const id = `t${Math.floor(random() * 2500)}` as Id;
    texts.set(id, text());
    haystack.put(id, texts.get(id) as string);
    if (n % 50) continue;
    for (const part of ["a", "ab", "cab"]) {
      const inOrder = (ids: Iterable<Id>) =>
        [...ids]
          .map((of) => texts.get(of) as string)
          .sort(compare)
          .slice(0, 5);
      const all = [...texts].flatMap(([of, t]) => (t.includes(part) ? [of] : []));
      expect(inOrder(haystack.find(part, 5))).toEqual(inOrder(all));
    }
  }
});
