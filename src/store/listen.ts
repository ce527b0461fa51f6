/** Hears of every committed change, also of other processes. Comes back by itself when the database was away. */
import { Client } from "pg";
import { CHANNEL } from "./commit";

export interface Notice {
  readonly pantry: string;
  readonly revision: number;
}

/** What a notice says; null where it is none of ours: anybody who reaches the database can send one. */
export function noticeIn(payload: string | undefined): Notice | null {
  try {
    const { pantry, revision } = JSON.parse(payload ?? "") as Partial<Notice>;
    return typeof pantry === "string" && Number.isInteger(revision) ? { pantry, revision: revision as number } : null;
  } catch {
    return null;
  }
}

/**
 * @param heard  called for every notice
 * @param back   called whenever the line is up (again): notices may have been missed
 * @returns a function that ends the listening
 */
export function listen(url: string, heard: (notice: Notice) => void, back: () => void): () => Promise<void> {
  let ended = false;
  let client: Client | null = null;
  let timer: NodeJS.Timeout | null = null;
  let wait = 100;

  const again = () => {
    if (ended || timer) return;
    timer = setTimeout(() => {
      timer = null;
      void open();
    }, wait);
    wait = Math.min(wait * 2, 3000);
  };

  const open = async () => {
    const next = new Client({ connectionString: url, keepAlive: true });
    client = next;
    next.on("error", again);
    next.on("end", again);
    next.on("notification", ({ payload }) => {
      const notice = noticeIn(payload);
      if (notice) heard(notice);
    });
    try {
      await next.connect();
      await next.query(`listen ${CHANNEL}`);
      wait = 100;
      back();
    } catch {
      again();
    }
  };
  void open();
  return async () => {
    ended = true;
    if (timer) clearTimeout(timer);
    await client?.end().catch(() => undefined);
  };
}
