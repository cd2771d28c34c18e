/** How smoothly a page moves: the time between its frames. */
import type { Page } from '@playwright/test';

const FRAME_MS = 1000 / 60;

/** The time between frames while `work` moves the map. */
export async function framesDuring(page: Page, work: () => Promise<void>): Promise<number[]> {
  // As text: named functions would need the bundler's helper, which the page does not have.
  await page.evaluate(`(() => {
    const state = (window.state = { frames: [], last: performance.now(), on: true });
    const tick = () => {
      const now = performance.now();
      state.frames.push(now - state.last);
      state.last = now;
      if (state.on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  })()`);
  await work();
  return page.evaluate(() => {
    const { state } = window as unknown as { state: { frames: number[]; on: boolean } };
    state.on = false;
    return state.frames.slice(2);
  });
}

/** Frames as a row of a table. */
export function frameRow(unsorted: readonly number[]): object {
  const frames = [...unsorted].sort((a, b) => a - b);
  const at = (share: number) => frames[Math.min(frames.length - 1, Math.floor(frames.length * share))]!;
  return {
    frames: frames.length,
    'median (ms)': at(0.5).toFixed(1),
    '95 of 100 within (ms)': at(0.95).toFixed(1),
    'longest (ms)': at(1).toFixed(1),
    'over two frames': frames.filter((ms) => ms > 2 * FRAME_MS + 1).length,
  };
}
