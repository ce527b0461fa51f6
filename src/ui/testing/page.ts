/** What a browser has and the tests' page lacks: sizes, so that virtual rows are drawn, and an end after each test. */
import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

/** Every element is as large as a window of 1280 × 800. */
for (const [name, size] of [
  ["offsetWidth", 1280],
  ["clientWidth", 1280],
  ["offsetHeight", 800],
  ["clientHeight", 800],
] as const)
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => size });
HTMLElement.prototype.scrollTo = () => {};
HTMLElement.prototype.scrollIntoView = () => {};
HTMLElement.prototype.hasPointerCapture ??= () => false;

afterEach(cleanup);
