/** Pointing on the map: travelling by arrows, letting go of a cable. */
import { fernhollow } from '../../core/demo/demos';
import { editAll } from '../../core/edit/edit';
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import { networkOf } from '../../core/testing/networks';
import type { Item } from '../state/selection';
import { dropped } from './cableDrag';
import { layOutMap, positionsOf, skeletonOf } from './geometry';
import { travel, type Direction } from './travel';

const demo = fernhollow();
const bones = skeletonOf(demo, null);
const geometry = layOutMap(bones, positionsOf(bones), { strands: 0 });
const sw = (id: string): Item => ({ kind: 'switch', switch: id as SwitchId });
const port = (id: string, label: string): Item => ({ kind: 'port', switch: id as SwitchId, port: label as PortId });
const go = (from: Item | null, ...ways: Direction[]) =>
  ways.reduce<Item | null>((at, way) => travel(geometry, demo.links, at, way), from);

describe('arrow keys', () => {
  it('lead from a switch along a cable to the next switch', () => {
    expect(go(sw('workshop'), 'right')).toEqual(port('workshop', '1'));
    expect(go(sw('workshop'), 'right', 'right')).toEqual(port('ridge-a', '6'));
    expect(go(sw('workshop'), 'right', 'right', 'right')).toEqual(sw('ridge-a'));
  });
  it('lead back the other way, and beside a port to the next one', () => {
    expect(go(port('workshop', '1'), 'left')).toEqual(sw('workshop'));
    expect(go(port('ridge-a', '1'), 'right')).toEqual(port('ridge-a', '2'));
  });
  it('begin somewhere, and end nowhere where nothing lies that way', () => {
    expect(go(null, 'down')).toEqual(sw('ridge-a'));
    expect(go(sw('workshop'), 'left')).toBeNull();
    expect(go({ kind: 'link', link: 'l1' as LinkId }, 'down')).toEqual(port('ridge-b', '1'));
  });
  it('reach every switch that cables join', () => {
    const seen = new Set<string>();
    const queue: Item[] = [sw('lodge')];
    for (const item of queue) {
      if (seen.has(JSON.stringify(item))) continue;
      seen.add(JSON.stringify(item));
      for (const way of ['up', 'down', 'left', 'right'] as const) {
        const next = go(item, way);
        if (next) queue.push(next);
      }
    }
    for (const each of demo.switches) expect(seen.has(JSON.stringify(sw(each.id)))).toBe(true);
  });
});

describe('a cable that is let go', () => {
  const design = networkOf({ a: {}, b: {}, c: {} }, ['a 1 = b 1'], { 'a 2': { speed: 10_000 }, 'b 2': {} });
  const grip = (id: string, label: string | null, link: string | null = null) => ({
    switch: id as SwitchId,
    port: label as PortId | null,
    link: link as LinkId | null,
  });
  const on = (id: string, label: string | null = null) => ({ switch: id as SwitchId, port: label as PortId | null });
  const cables = (made: ReturnType<typeof dropped>) => {
    const edited = made && editAll(design, made.commands);
    if (!edited?.ok) return null;
    return edited.value.design.links.map((link) => `${link.a.switch} ${link.a.port} = ${link.b.switch} ${link.b.port}`);
  };
  it.each([
    ['on a free port joins the two', grip('a', '2'), on('b', '2'), ['a 1 = b 1', 'a 2 = b 2']],
    ['on a switch takes or adds a port of that speed', grip('a', '2'), on('b'), ['a 1 = b 1', 'a 2 = b 3']],
    ['on a taken port takes another', grip('c', null), on('b', '1'), ['a 1 = b 1', 'c 1 = b 2']],
    ['on its own switch does nothing', grip('a', '2'), on('a'), null],
    ['moves its end to another port', grip('b', '1', 'l0'), on('b', '2'), ['a 1 = b 2']],
    ['moves its end to another switch', grip('b', '1', 'l0'), on('c'), ['a 1 = c 1']],
    ['where its end was does nothing', grip('b', '1', 'l0'), on('b', '1'), null],
  ] as const)('%s', (_, from, to, result) => expect(cables(dropped(design, from, to, { x: 5, y: 5 }))).toEqual(result));
  it('on empty paper adds a switch, but an end that was plugged in stays', () => {
    expect(cables(dropped(design, grip('a', '2'), null, { x: 5, y: 5 }))).toEqual(['a 1 = b 1', 'a 2 = switch-1 1']);
    expect(dropped(design, grip('b', '1', 'l0'), null, { x: 5, y: 5 })).toBeNull();
    expect(dropped(design, grip('a', '2'), null, null)).toBeNull();
  });
});
