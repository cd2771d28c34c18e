import { fireEvent, render, screen } from '@testing-library/react';
import { Divider } from './Divider';
import { limited, readRoom, USUAL } from './room';

const window = { width: 1280, height: 800 };

describe('the room of the window', () => {
  it('leaves the map its least, whatever is asked', () => {
    expect(limited('drawer', 300, window)).toBe(300);
    expect(limited('drawer', 5000, window)).toBe(800 - 48 - 180);
    expect(limited('drawer', -5, window)).toBe(120);
    expect(limited('inspector', 5000, window)).toBe(720);
    expect(limited('inspector', 700, { width: 1024, height: 700 })).toBe(1024 - 212 - 320);
  });

  it.each([[null], ['no JSON'], ['{"drawer":"tall","inspector":null}'], ['[]'], ['7'], ['null']])(
    'is as usual where %j is remembered',
    (text) => expect(readRoom(text)).toEqual(USUAL),
  );

  it('is as it was left', () =>
    expect(readRoom('{"drawer":200,"inspector":400}')).toEqual({ drawer: 200, inspector: 400 }));
});

describe('a divider', () => {
  it('follows the pointer, goes back where the pointer is taken away, and obeys arrow keys', () => {
    const sizes: (number | null)[] = [];
    render(
      <Divider label="Height of the table" along="horizontal" size={() => 200} onSize={(size) => sizes.push(size)} />,
    );
    const edge = screen.getByRole('separator', { name: 'Height of the table' });
    edge.setPointerCapture = () => undefined;
    const point = (type: string, clientY: number) => fireEvent(edge, new MouseEvent(type, { bubbles: true, clientY }));
    point('pointermove', 10);
    expect(sizes).toEqual([]);
    point('pointerdown', 500);
    point('pointermove', 440);
    point('pointerup', 440);
    point('pointerdown', 500);
    point('pointercancel', 0);
    fireEvent.keyDown(edge, { key: 'ArrowUp' });
    fireEvent.keyDown(edge, { key: 'ArrowDown' });
    fireEvent.keyDown(edge, { key: 'ArrowLeft' });
    fireEvent.doubleClick(edge);
    expect(sizes).toEqual([260, 200, 224, 176, null]);
  });
});
