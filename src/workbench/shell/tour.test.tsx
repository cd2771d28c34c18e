import { act, fireEvent, screen } from '@testing-library/react';
import { placeSelected } from '../lenses/shared/placing';
import type { SwitchId, TreeId } from '../../core/model/ids';
import { renderWith, settle } from '../testing';
import { STEPS } from './tourSteps';
import { Tour } from './Tour';

const done = (step: number, ...states: Parameters<(typeof STEPS)[0]['done']>) => STEPS[step]!.done(...states);

describe('the tour', () => {
  it('knows of each step whether it is done', async () => {
    const store = await renderWith(<p />);
    const begun = store.getState();
    expect(STEPS[0]!.does(begun)).toMatch(/: lodge\.$/);
    for (const [i] of STEPS.entries()) expect(done(i, begun, begun)).toBe(false);
    act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
    expect(done(0, store.getState(), begun)).toBe(true);
    expect(STEPS[1]!.does(store.getState())).toMatch(/Click ridge-a, then press P/);
    act(() => store.getState().select({ kind: 'switch', switch: 'ridge-a' as SwitchId }));
    act(() => placeSelected('root')(store.getState()));
    await settle();
    expect(done(1, store.getState(), begun)).toBe(true);
    act(() => store.getState().showTree('vlan:25' as TreeId, 'toggle'));
    expect(done(2, store.getState(), begun)).toBe(true);
    act(() => store.getState().openDialog('palette'));
    expect(done(4, store.getState(), begun)).toBe(true);
  });

  it('stands above the map while it is taken, and can be left', async () => {
    const store = await renderWith(<Tour />);
    expect(screen.queryByRole('region', { name: 'Tour' })).toBeNull();
    act(() => store.getState().setTour(0));
    expect(screen.getByRole('region', { name: 'Tour' })).toHaveTextContent('1 of 5');
    fireEvent.click(screen.getByRole('button', { name: 'skip this' }));
    expect(screen.getByRole('region', { name: 'Tour' })).toHaveTextContent('2 of 5');
    fireEvent.click(screen.getByRole('button', { name: 'leave the tour' }));
    expect(store.getState().tour).toBeNull();
  });
});
