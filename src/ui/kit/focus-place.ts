/**
 * Moves the focus to a place of a grid: at once where the place is there, or the next key would still act on the one that
 * was left; else once it is drawn.
 */
export function focusPlace(
  grid: { readonly current: HTMLElement | null },
  row: number,
  column: number,
  options?: FocusOptions,
): void {
  const place = () => grid.current?.querySelector<HTMLElement>(`[data-place="${row} ${column}"]`);
  const there = place();
  if (there) there.focus(options);
  else requestAnimationFrame(() => place()?.focus(options));
}
