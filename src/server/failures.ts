/**
 * Failures that callers tell apart. By a tag and not by class: a bundler may put a class into several files, and an
 * error made by one copy is no instance of another.
 */
export type FailureKind =
  /** The engine's process is gone. */
  | "lost"
  /** The engine itself refuses. */
  | "engine failed"
  /** It took longer than it may, and was ended. */
  | "too long"
  /** Whoever asked has gone. */
  | "given up"
  /** More wait already than can be answered soon. */
  | "too busy"
  /** The readings it needs are still being computed. */
  | "computing"
  /** The readings it needs can't be computed. */
  | "stopped"
  /** The pantry was deleted. */
  | "pantry gone"
  /** The pantry has as many pictures as it may have. */
  | "pictures full";

export class Failure extends Error {
  constructor(
    readonly failure: FailureKind,
    message: string,
  ) {
    super(message);
  }
}

/** What kind of failure an error is; null: none of these. */
export const failureOf = (error: unknown): FailureKind | null =>
  typeof error === "object" && error !== null && typeof (error as { failure?: unknown }).failure === "string"
    ? (error as { failure: FailureKind }).failure
    : null;

/** Codes of PostgreSQL and of the system that say that there is no connection to the database. */
const AWAY = /^(08...|57P0[1-5]|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|EAI_AGAIN)$/;
/** What the driver says without a code. */
const ENDED =
  /^(Connection terminated( unexpectedly)?|Client has encountered a connection error and is not queryable|timeout exceeded when trying to connect|Connection terminated due to connection timeout)$/;
/** Whether an error means that the database is away. Errors may stand within one another. */
export function databaseAway(error: unknown, depth = 0): boolean {
  if (typeof error !== "object" || error === null || depth > 4) return false;
  const { code, message, cause, previous } = error as Record<"code" | "message" | "cause" | "previous", unknown>;
  return (
    (typeof code === "string" && AWAY.test(code)) ||
    (typeof message === "string" && ENDED.test(message)) ||
    databaseAway(cause, depth + 1) ||
    databaseAway(previous, depth + 1)
  );
}
