import { cache } from "react";
import { host } from "@/server/host";

/** The page of a pantry waits no longer than this to know that there is one [ms]; its frame says what is the matter. */
const LIMIT = 2_000;

/** Key and name of a pantry; null: there is none, undefined: that can't be known right now. Asked once for each page. */
export const headOf = cache(async (key: string) => {
  const late = new Promise<undefined>((done) => setTimeout(done, LIMIT));
  return Promise.race([host().then((open) => open.head(key)), late]).catch(() => undefined);
});
