/** Graphs for other programs: every switch, host and cable once, whatever their names. */
import fc from 'fast-check';
import { JSDOM } from 'jsdom';
import { fernhollow } from '../demo/demos';
import { networkOf } from '../testing/networks';
import { anyDesign } from '../testing/networks';
import { tries } from '../testing/runs';
import { dot, graphMl } from './graphs';

const read = (text: string): Document => new JSDOM(text, { contentType: 'application/xml' }).window.document;

it('has every switch, host and cable once in GraphML that any reader takes', () => {
  fc.assert(
    fc.property(fc.oneof(anyDesign, fc.constant(fernhollow())), (design) => {
      const document = read(graphMl(design));
      const nodes = [...document.querySelectorAll('node')].map((node) => node.getAttribute('id'));
      expect(nodes).toEqual([
        ...design.switches.map(({ id }) => `switch:${id}`),
        ...design.hosts.map(({ id }) => `host:${id}`),
      ]);
      const edges = [...document.querySelectorAll('edge')];
      expect(edges).toHaveLength(design.links.length + design.hosts.flatMap(({ attach }) => attach).length);
      for (const edge of edges) for (const end of ['source', 'target']) expect(nodes).toContain(edge.getAttribute(end));
      const keys = new Set([...document.querySelectorAll('key')].map((key) => key.getAttribute('id')));
      for (const data of document.querySelectorAll('data')) expect(keys).toContain(data.getAttribute('key'));
    }),
    { numRuns: tries(20) },
  );
});

it('keeps names as they are, with whatever they have in them', () => {
  const design = networkOf({ a: { name: 'rack <1> & "2" \\' }, b: {} }, ['a 1 = b 1']);
  const name = read(graphMl(design)).querySelector('node data[key="node-name"]');
  expect(name?.textContent).toBe('rack <1> & "2" \\');
  expect(dot(design)).toContain('"switch:a" [label="rack <1> & \\"2\\" \\\\", shape=box];');
  expect(dot(design)).toContain('"switch:a" -- "switch:b" [taillabel="1", headlabel="1"];');
});
