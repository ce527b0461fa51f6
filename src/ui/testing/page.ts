/** Setup of component tests: element sizes, which virtual rows need, and cleanup after each test. */
import { configure, cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// Parts that are loaded when they are opened take seconds on a busy machine.
configure({ asyncUtilTimeout: 30_000 });

/** Every element has the size of the window, 1280 × 800. */
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
