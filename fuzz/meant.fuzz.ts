/** Lines made of what they mean: read as that, or refused with a text that says it; never read as something else. */
import { describe, expect } from "vitest";
import { outcome, together } from "../src/core/testing/ways";
import { fuzz, pick } from "./rounds";

describe("lines of which it is known what they mean", () => {
  fuzz("are never read as something else", (random) => {
    for (let n = 0; n < 20; n++) {
      const [text, meant] = together((list) => pick(random, list));
      const found = outcome(text, meant);
      expect([text, meant, found]).not.toEqual([text, meant, "something else"]);
    }
  });
});
