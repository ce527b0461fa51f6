/** The drawings of icons by name. What is asked for in one moment is fetched together. */
import { iconBodies, MOST_ICONS } from "./api";

export class IconBodies {
  private readonly known = new Map<string, string>();
  private wanted = new Set<string>();
  private readonly listeners = new Set<() => void>();

  constructor(private readonly fetchBodies = iconBodies) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** The inner SVG of an icon, "" while it is on its way or where there is none of this name. */
  body(name: string): string {
    const there = this.known.get(name);
    if (there !== undefined) return there;
    this.known.set(name, "");
    if (this.wanted.size === 0) setTimeout(() => void this.load(), 0);
    this.wanted.add(name);
    return "";
  }

  private async load(): Promise<void> {
    const names = [...this.wanted];
    this.wanted = new Set();
    for (let at = 0; at < names.length; at += MOST_ICONS) {
      const part = names.slice(at, at + MOST_ICONS);
      const bodies = await this.fetchBodies(part).catch(() => null);
      for (const name of part) {
        // What could not be fetched is asked for again the next time it is drawn.
        if (bodies === null) this.known.delete(name);
        else this.known.set(name, Object.hasOwn(bodies, name) ? bodies[name] : "");
      }
      if (bodies !== null) for (const listener of this.listeners) listener();
    }
  }
}
