/** The design as a graph for other programs: GraphML and DOT. Nodes are switches and hosts, edges their cables. */
import { escapeXml } from './text';
import { nameOf } from '../model/names';
import type { Design } from '../model/document';

interface GraphNode {
  readonly id: string;
  readonly kind: 'switch' | 'host';
  readonly name: string;
  readonly facts: Readonly<Record<string, string | number | boolean>>;
}
interface GraphEdge {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly facts: Readonly<Record<string, string | number | boolean>>;
}

/** Identifiers of switches and hosts may be alike: each has its kind in front. */
const switchNode = (id: string): string => `switch:${id}`;
const hostNode = (id: string): string => `host:${id}`;

function graphOf(design: Design): { readonly nodes: readonly GraphNode[]; readonly edges: readonly GraphEdge[] } {
  const portOf = (end: { readonly switch: string; readonly port: string }) =>
    design.switches.find(({ id }) => id === end.switch)?.ports.find(({ id }) => id === end.port);
  return {
    nodes: [
      ...design.switches.map((sw): GraphNode => ({
        id: switchNode(sw.id),
        kind: 'switch',
        name: nameOf(sw),
        facts: { mac: sw.mac, tier: sw.tier, mode: sw.dialect, priority: sw.priority, up: sw.up },
      })),
      ...design.hosts.map((host): GraphNode => ({
        id: hostNode(host.id),
        kind: 'host',
        name: nameOf(host),
        facts: { mac: host.mac, vlan: host.vlan },
      })),
    ],
    edges: [
      ...design.links.map(({ id, a, b, up }): GraphEdge => ({
        id,
        from: switchNode(a.switch),
        to: switchNode(b.switch),
        facts: {
          'from port': a.port,
          'to port': b.port,
          speed: Math.min(...[a, b].map((end) => portOf(end)?.speed ?? 0)),
          up,
        },
      })),
      ...design.hosts.flatMap(({ id, attach }) =>
        attach.map((end, i): GraphEdge => ({
          id: `${hostNode(id)} ${i + 1}`,
          from: hostNode(id),
          to: switchNode(end.switch),
          facts: { 'to port': end.port, speed: portOf(end)?.speed ?? 0 },
        })),
      ),
    ],
  };
}

const typeOf = (value: string | number | boolean): string =>
  typeof value === 'string' ? 'string' : typeof value === 'number' ? 'int' : 'boolean';

/** GraphML 1.0, undirected, with what is known of each thing as data. */
export function graphMl(design: Design): string {
  const { nodes, edges } = graphOf(design);
  const told = {
    node: nodes.map((node) => ({ kind: node.kind, name: node.name, ...node.facts })),
    edge: edges.map(({ facts }) => facts),
  };
  const keys = (['node', 'edge'] as const).flatMap((of) => {
    const types = new Map<string, string>();
    for (const facts of told[of]) for (const [key, value] of Object.entries(facts)) types.set(key, typeOf(value));
    return [...types].map(([key, type]) => ({ of, key, type, id: `${of}-${key.replaceAll(' ', '-')}` }));
  });
  const data = (of: 'node' | 'edge', facts: Readonly<Record<string, string | number | boolean>>): string =>
    Object.entries(facts)
      .map(([key, value]) => `<data key="${of}-${key.replaceAll(' ', '-')}">${escapeXml(String(value))}</data>`)
      .join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    ...keys.map(({ of, key, type, id }) => `  <key id="${id}" for="${of}" attr.name="${key}" attr.type="${type}"/>`),
    `  <graph id="${escapeXml(design.name)}" edgedefault="undirected">`,
    ...nodes.map(({ id }, i) => `    <node id="${escapeXml(id)}">${data('node', told.node[i]!)}</node>`),
    ...edges.map(
      ({ id, from, to, facts }) =>
        `    <edge id="${escapeXml(id)}" source="${escapeXml(from)}" target="${escapeXml(to)}">${data('edge', facts)}</edge>`,
    ),
    '  </graph>',
    '</graphml>',
    '',
  ].join('\n');
}

const quoted = (value: string): string => `"${value.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;

/** DOT, as Graphviz and others read it. */
export function dot(design: Design): string {
  const { nodes, edges } = graphOf(design);
  return [
    `graph ${quoted(design.name)} {`,
    ...nodes.map(
      ({ id, name, kind }) => `  ${quoted(id)} [label=${quoted(name)}, shape=${kind === 'switch' ? 'box' : 'plain'}];`,
    ),
    ...edges.map(({ from, to, facts }) => {
      const ends = [
        ...('from port' in facts ? [`taillabel=${quoted(String(facts['from port']))}`] : []),
        `headlabel=${quoted(String(facts['to port']))}`,
        ...(facts.up === false ? ['style=dashed'] : []),
      ];
      return `  ${quoted(from)} -- ${quoted(to)} [${ends.join(', ')}];`;
    }),
    '}',
    '',
  ].join('\n');
}
