/** Runs tasks in the order in which they come, at most so many at once. */
export function oneAfterAnother(most: number): (task: () => Promise<void>) => Promise<void> {
  const waiting: (() => void)[] = [];
  let running = 0;
  return async (task) => {
    if (running >= most) await new Promise<void>((go) => waiting.push(go));
    else running += 1;
    try {
      await task();
    } finally {
      const next = waiting.shift();
      if (next) next();
      else running -= 1;
    }
  };
}
