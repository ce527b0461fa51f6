/** Durations: the game's clock counts in ticks, people write seconds. Stored in ticks, shown as both. */

const PARTS = /^(?:(\d+(?:\.\d+)?)h)?(?:(\d+(?:\.\d+)?)m)?(?:(\d+(?:\.\d+)?)s)?$/;

/**
 * Reads "90s", "1m30s", "2h", "5400t" or a bare number of seconds.
 * @returns whole ticks, or null when the text is no duration or not a whole number of ticks
 */
export function parseTicks(text: string, ticksPerSecond: number): number | null {
  const t = text.trim().toLowerCase().replace(/\s+/g, "");
  if (/^\d+t$/.test(t)) return within(Number(t.slice(0, -1)));
  if (/^\d+(\.\d+)?$/.test(t)) return within(Number(t) * ticksPerSecond);
  const match = PARTS.exec(t);
  if (!match || t === "") return null;
  const [h, m, s] = match.slice(1).map((part) => Number(part ?? 0));
  return within((h * 3600 + m * 60 + s) * ticksPerSecond);
}

const within = (ticks: number): number | null => {
  const whole = Math.round(ticks);
  return Math.abs(ticks - whole) < 1e-6 && whole <= 1e12 ? whole : null;
};

/** The shortest text that parseTicks reads back as the same ticks: "90s" stays "1m30s", odd ticks stay "7t". */
export function formatTicks(ticks: number, ticksPerSecond: number): string {
  if (ticks === 0) return "0s";
  if (ticks % ticksPerSecond !== 0) return `${ticks}t`;
  const seconds = ticks / ticksPerSecond;
  if (seconds < 120) return `${seconds}s`;
  const h = Math.floor(seconds / 3600);
  const m = Math.floor((seconds % 3600) / 60);
  const s = seconds % 60;
  return `${h ? `${h}h` : ""}${m ? `${m}m` : ""}${s ? `${s}s` : ""}`;
}

/** Seconds of play in words a person reads at a glance: "45 s", "1 min 52 s", "3 h 5 min". */
export function saySeconds(seconds: number): string {
  if (!Number.isFinite(seconds)) return "never";
  if (seconds < 10) return `${trim(seconds, 1)} s`;
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return join(Math.floor(whole / 60), "min", whole % 60, "s");
  const minutes = Math.round(whole / 60);
  return join(Math.floor(minutes / 60), "h", minutes % 60, "min");
}

const join = (a: number, unit: string, b: number, smaller: string) => (b ? `${a} ${unit} ${b} ${smaller}` : `${a} ${unit}`);
const trim = (value: number, digits: number) => String(Number(value.toFixed(digits)));
