/** The buttons that can be pressed on the page as it stands: tables and panels have more of them than the palette could list. */
import type { PaletteEntry } from './paletteEntry';

/** What is no action of its own: rows of a table, parts of a list, tabs, what the palette lies in. */
const APART = '[role="row"], [role="listbox"], [role="dialog"], [role="menu"], header';

/** One entry for each name that a single button has; pressed where it is chosen. */
export function buttonsOnScreen(known: ReadonlySet<string>): PaletteEntry[] {
  const byName = new Map<string, HTMLButtonElement[]>();
  for (const button of document.querySelectorAll<HTMLButtonElement>('button:enabled:not([role="tab"])')) {
    if (button.closest(APART) || button.getClientRects().length === 0) continue;
    const name = (button.getAttribute('aria-label') ?? button.textContent).replace(/\s+/g, ' ').trim();
    if (name.length < 3 || known.has(name)) continue;
    byName.set(name, [...(byName.get(name) ?? []), button]);
  }
  return [...byName].flatMap(([name, [button, ...more]]) =>
    more.length > 0
      ? []
      : [{ key: `b ${name}`, name, detail: `button ${placeOf(button!)}`, run: () => button!.click() }],
  );
}

/** `in Findings`, `on the page`. */
function placeOf(button: HTMLElement): string {
  const around = button.closest(
    'section[aria-label], aside[aria-label], nav[aria-label], [role="tabpanel"][aria-label]',
  );
  const name = around?.getAttribute('aria-label');
  return name ? `in ${name}` : 'on the page';
}
