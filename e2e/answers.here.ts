import { afterAll, beforeAll } from "vitest";
import { freshHost, patient } from "../src/server/testing/host";
import { answersThrough } from "./answers";
import { here } from "./door";

let one: Awaited<ReturnType<typeof freshHost>>;
beforeAll(async () => {
  patient();
  one = await freshHost();
});
afterAll(() => one?.end());

answersThrough(() => here);
