/** How a process that holds an engine is started, so that it gives back what it no longer needs. */

/** @param most  largest heap of objects [MB]; arrays come on top */
export const engineFlags = (most: number): string[] => [
  `--max-old-space-size=${most}`,
  // Garbage is cleared away when the heap has grown by a fifth, not by as much again.
  "--heap-growing-percent=20",
];

/** Where the C library is glibc: large arrays are given back as soon as they are let go (mallopt(3)). */
export const ENGINE_ENV = { MALLOC_MMAP_THRESHOLD_: "131072" };
