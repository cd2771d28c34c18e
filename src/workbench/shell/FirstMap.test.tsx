import { render } from '@testing-library/react';
import { readDesign } from '../../core/model/read';
import { fernhollow } from '../../core/demo/demos';
import { campusOf } from '../../core/testing/campus';
import type { Design } from '../../core/model/document';
import { FirstMap } from './FirstMap';

const drawn = (design: Design): HTMLElement =>
  render(
    <FirstMap
      open={
        { id: 'x', revision: 0, savedAt: '', damage: null, undoable: 0, design } as unknown as Parameters<
          typeof FirstMap
        >[0]['open']
      }
    />,
  ).container;

describe('the map before the page is alive', () => {
  it('has every switch by name, the root’s knot and the roles of the first tree, and nothing that can be pressed', () => {
    const room = drawn(fernhollow());
    for (const sw of fernhollow().switches) expect(room).toHaveTextContent(sw.name ?? sw.id);
    expect(room.querySelectorAll('[data-end="root"]').length).toBe(fernhollow().switches.length - 1);
    expect(room.querySelectorAll('button, a, input, [data-switch], [data-group], [tabindex]').length).toBe(0);
    expect(room.firstElementChild).toHaveAttribute('aria-hidden', 'true');
  });

  it('folds a large network as the page does', () => {
    const room = drawn(campusOf({ switches: 100, vlans: 8 }));
    expect(room).toHaveTextContent('core-1');
    expect(room).not.toHaveTextContent('acc-1,');
    expect(room.querySelectorAll('svg rect').length).toBeLessThan(60);
  });

  it('is an empty room where nothing is drawn yet', () => {
    const empty = readDesign({ format: 'knot-path-design', version: 1, name: 'n', switches: [], links: [] });
    expect(empty.ok && drawn(empty.value).querySelectorAll('text').length).toBe(0);
  });
});
