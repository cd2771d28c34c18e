/** A switch that a scenario brings along: like the one that it is plugged into, with a name and an address of its own. */
import { FreshNames } from '../../../core/edit/fresh';
import { withStranger } from '../../../core/analysis/guards/intruder';
import { portSchema, switchSchema, type Design, type LinkEnd, type Switch } from '../../../core/model/document';
import type { Action } from '../../../core/model/scenario';
import type { PortId } from '../../../core/model/ids';

type Arrival = Pick<Extract<Action, { do: 'add-switch' }>, 'switch' | 'links'>;

export function newSwitch(design: Design, beside: Switch, port: PortId): Arrival {
  const fresh = new FreshNames(design);
  const id = fresh.numbered('newcomer');
  const plug = portSchema.parse({ id: '1', number: 1, speed: beside.ports.find((each) => each.id === port)?.speed });
  return {
    switch: {
      ...beside,
      id,
      name: id,
      mac: fresh.mac(),
      priority: 32_768,
      trees: {},
      up: true,
      ports: [plug],
      tier: 'access',
    },
    links: [{ id: fresh.linkId(), a: { switch: beside.id, port }, b: { switch: id, port: plug.id } }],
  };
}

/** One that nobody planned, on a cable or two: with better identifiers than any switch of the design. */
export function strangersSwitch(design: Design, ...plugs: [LinkEnd, ...LinkEnd[]]): Arrival | null {
  const placed = withStranger(design, ...plugs);
  return placed && { switch: placed.stranger, links: placed.links.map(({ id, a, b }) => ({ id, a, b })) };
}

/** A small switch without spanning tree: with a cable from itself to itself, or one each in two ports. */
export function smallSwitch(design: Design, plug: LinkEnd, other: LinkEnd | null): Arrival {
  const fresh = new FreshNames(design);
  const id = fresh.numbered('small-switch');
  const ports = (other ? [1, 2] : [1, 2, 3]).map((number) => portSchema.parse({ id: String(number), number }));
  const [own, out, back] = ports.map((each) => ({ switch: id, port: each.id }));
  return {
    switch: switchSchema.parse({ id, name: id, mac: fresh.mac(), dialect: 'off', ports }),
    links: [
      { id: fresh.linkId(), a: plug, b: own! },
      { id: fresh.linkId(), a: other ?? back!, b: out! },
    ],
  };
}
