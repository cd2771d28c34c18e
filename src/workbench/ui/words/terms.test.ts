import { TERMS, termOf, termText } from './terms';

describe('the terms', () => {
  const labels = TERMS.flatMap(({ term, also = [] }) => [term, ...also]);
  it('explain no label twice', () => {
    expect(
      labels.filter((label, i) => labels.findIndex((each) => each.toLowerCase() === label.toLowerCase()) < i),
    ).toEqual([]);
  });
  it('stand in order, each one sentence that ends', () => {
    const names = TERMS.map(({ term }) => term.toLowerCase());
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));
    for (const { says } of TERMS) expect(says).toMatch(/^[A-Z0-9].*\.$/);
  });
  it('are found by any label, whatever its letters', () => {
    for (const label of labels) expect(termOf(label.toUpperCase())).toBeDefined();
    expect(termText('Root path cost')).toBe('The sum of path costs from a switch to the root. (802.1Q-2018 13.9)');
    expect(termText('Notes')).toBeUndefined();
  });
});
