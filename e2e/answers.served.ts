/** What the API answers, asked of the production build: bundling has turned refusals into failures before. */
import { afterAll, beforeAll } from "vitest";
import { answersThrough } from "./answers";
import { type Door, servedAt } from "./door";
import { Program } from "./program";

let program: Program;
let door: Door;
beforeAll(async () => {
  program = await Program.on("salty_answers");
  door = servedAt(program.base);
}, 300_000);
afterAll(() => program?.end());

answersThrough(() => door);
