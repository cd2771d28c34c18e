/** A switch that a scenario brings along: like the one that it is plugged into, with a name and an address of its own. */
import { FreshNames } from '../../../core/edit/fresh';
import { withStranger } from '../../../core/analysis/guards/intruder';
import { portSchema, type Design, type Switch } from '../../../core/model/document';
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

/** One that nobody planned: with better identifiers than any switch of the design. */
export function strangersSwitch(design: Design, beside: Switch, port: PortId): Arrival | null {
  const placed = withStranger(design, beside.id, port);
  const stranger = placed?.design.switches.at(-1);
  const link = placed?.design.links.at(-1);
  return stranger && link ? { switch: stranger, links: [{ id: link.id, a: link.a, b: link.b }] } : null;
}
