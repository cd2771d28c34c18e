/** What of a plane is taken, by rectangles. Pure. */
export interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Side of the squares that rectangles are filed in. */
const CELL = 48;

interface Taken {
  readonly rectangle: Rectangle;
  readonly owner: string | null;
}

/** A plane that remembers what is on it, and whose it is. */
export class Occupied {
  readonly #cells = new Map<string, Taken[]>();

  take(rectangle: Rectangle, owner: string | null = null): void {
    for (const key of cellsOf(rectangle)) {
      const cell = this.#cells.get(key);
      if (cell) cell.push({ rectangle, owner });
      else this.#cells.set(key, [{ rectangle, owner }]);
    }
  }

  /** Whether nothing is there but what `owner` has there itself. */
  free(rectangle: Rectangle, owner?: string): boolean {
    for (const key of cellsOf(rectangle))
      if (this.#cells.get(key)?.some((other) => other.owner !== owner && overlaps(other.rectangle, rectangle)))
        return false;
    return true;
  }

  /** Whose is what lies there. */
  ownersAt(rectangle: Rectangle): string[] {
    const found: string[] = [];
    for (const key of cellsOf(rectangle))
      for (const other of this.#cells.get(key) ?? [])
        if (other.owner !== null && overlaps(other.rectangle, rectangle)) found.push(other.owner);
    return found;
  }
}

export const overlaps = (a: Rectangle, b: Rectangle): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

function* cellsOf({ x, y, width, height }: Rectangle): Generator<string> {
  for (let column = Math.floor(x / CELL); column <= Math.floor((x + width) / CELL); column += 1)
    for (let row = Math.floor(y / CELL); row <= Math.floor((y + height) / CELL); row += 1) yield `${column} ${row}`;
}

/** The rectangle of this size around a point. */
export const around = (
  { x, y }: { readonly x: number; readonly y: number },
  width: number,
  height: number,
): Rectangle => ({
  x: x - width / 2,
  y: y - height / 2,
  width,
  height,
});
