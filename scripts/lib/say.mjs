/** What the scripts tell: one line per step. */
export const say = (text) => console.log(`· ${text}`);

export class Missing extends Error {}

/** Runs a main function; a Missing says what to do and ends with 1, anything else shows its stack. */
export const run = (main) =>
  main().catch((error) => {
    console.error(error instanceof Missing ? `✗ ${error.message}` : error);
    process.exit(1);
  });
