/**
 * Writing a design as people keep it under version control: keys in a fixed order, defaults left out, two spaces of indent.
 * `readDesignText(writeDesign(d))` gives `d` again.
 */
import { ACTIVE_MEMBERS, BRIDGE_PRIORITY, LACP_PRIORITY, PORT_PRIORITY } from '../legal';
import { DEFAULT_TALK, DEFAULT_UNTIL, type KeptScenario } from '../scenario';
import {
  DEFAULT_CARRIAGE,
  DEFAULT_TIMERS,
  FORMAT,
  type Answers,
  type Bundle,
  type Design,
  type HostBundle,
  type Port,
  type Switch,
} from '../document';

/** The document as text, ending in a line feed. */
export const writeDesign = (design: Design): string => `${JSON.stringify(leanDesign(design), null, 2)}\n`;

/** The document as a plain JSON value with defaults left out. */
export function leanDesign(design: Design): Record<string, unknown> {
  return lean({
    format: FORMAT.name,
    version: FORMAT.version,
    name: design.name,
    notes: unless(design.notes, ''),
    pathCost: design.pathCost,
    vlans: filled(design.vlans.map((vlan) => lean({ id: vlan.id, name: vlan.name, load: vlan.load }))),
    regions: filled(
      design.regions.map((r) =>
        lean({ id: r.id, name: unless(r.name, ''), revision: unless(r.revision, 0), instances: filled(r.instances) }),
      ),
    ),
    switches: design.switches.map(leanSwitch),
    links: design.links.map((link) =>
      lean({ id: link.id, a: end(link.a), b: end(link.b), up: unless(link.up, true), delay: link.delay }),
    ),
    bundles: filled(design.bundles.map(leanBundle)),
    hosts: filled(
      design.hosts.map((host) =>
        lean({
          id: host.id,
          name: host.name,
          mac: host.mac,
          vlan: unless(host.vlan, 1),
          attach: filled(host.attach.map(end)),
          bundle: host.bundle && leanNegotiation(host.bundle),
        }),
      ),
    ),
    observed: filled(
      design.observed.map((seen) =>
        lean({
          switch: seen.switch,
          port: seen.port,
          device: seen.device,
          devicePort: seen.devicePort,
          mac: seen.mac,
          kind: seen.kind,
        }),
      ),
    ),
    scenarios: filled(design.scenarios.map(leanScenario)),
    worksheets: filled(
      design.worksheets.map(({ tree, at, right, of, answers }) =>
        lean({ tree, at, right, of, answers: leanAnswers(answers) }),
      ),
    ),
  });
}

const leanScenario = ({ id, name, look, until, talk, fromBoot, actions }: KeptScenario) =>
  lean({
    id,
    name,
    look: unless(look, ''),
    until: unless(until, DEFAULT_UNTIL),
    talk: unless(talk, DEFAULT_TALK),
    fromBoot: unless(fromBoot, false),
    actions: actions.map((action) =>
      action.do === 'add-switch' ? { ...action, switch: leanSwitch(action.switch) } : action,
    ),
  });

const leanSwitch = (sw: Switch) =>
  lean({
    id: sw.id,
    name: sw.name,
    tier: unless(sw.tier, 'access'),
    mac: sw.mac,
    up: unless(sw.up, true),
    pathCost: sw.pathCost,
    dialect: unless(sw.dialect, 'rstp'),
    region: sw.region,
    priority: unless(sw.priority, BRIDGE_PRIORITY.default),
    trees: keyed(sw.trees),
    timers: keyed(
      lean({
        hello: unless(sw.timers.hello, DEFAULT_TIMERS.hello),
        maxAge: unless(sw.timers.maxAge, DEFAULT_TIMERS.maxAge),
        forwardDelay: unless(sw.timers.forwardDelay, DEFAULT_TIMERS.forwardDelay),
        maxHops: unless(sw.timers.maxHops, DEFAULT_TIMERS.maxHops),
        txHold: unless(sw.timers.txHold, DEFAULT_TIMERS.txHold),
      }),
    ),
    lacp: sw.lacp && lean({ systemPriority: unless(sw.lacp.systemPriority, LACP_PRIORITY.default) }),
    position: sw.position && { x: sw.position.x, y: sw.position.y },
    ports: sw.ports.map(leanPort),
  });

const leanPort = (port: Port) =>
  lean({
    id: port.id,
    number: port.number,
    speed: unless(port.speed, 1000),
    up: unless(port.up, true),
    edge: unless(port.edge, false),
    lacp: port.lacp && lean({ priority: unless(port.lacp.priority, LACP_PRIORITY.default), key: port.lacp.key }),
    ...leanSteering(port),
  });

const leanBundle = (bundle: Bundle) =>
  lean({
    id: bundle.id,
    name: bundle.name,
    switch: bundle.switch,
    number: bundle.number,
    ports: bundle.ports,
    ...leanNegotiation(bundle),
    edge: unless(bundle.edge, false),
    ...leanSteering(bundle),
  });

const leanNegotiation = ({ mode, timeout, key, minLinks, maxActive, hash }: HostBundle) =>
  lean({
    mode: unless(mode, 'active'),
    timeout: unless(timeout, 'slow'),
    key,
    minLinks: unless(minLinks, 1),
    maxActive: unless(maxActive, ACTIVE_MEMBERS.default),
    hash: unless(hash, '2'),
  });

const leanSteering = (port: Port | Bundle) => ({
  cost: port.cost,
  externalCost: port.externalCost,
  priority: unless(port.priority, PORT_PRIORITY.default),
  trees: keyed(port.trees),
  vlans: unless(port.vlans, DEFAULT_CARRIAGE),
});

const leanAnswers = ({ root, switches }: Answers) =>
  lean({
    root,
    switches: keyed(
      Object.fromEntries(
        Object.entries(switches).map(([id, { rootPathCost, ports }]) => [
          id,
          lean({
            rootPathCost,
            ports: keyed(
              Object.fromEntries(Object.entries(ports).map(([port, { role, state }]) => [port, lean({ role, state })])),
            ),
          }),
        ]),
      ),
    ),
  });

const end = (at: { switch: string; port: string }) => ({ switch: at.switch, port: at.port });

/** Nothing in place of a default. */
function unless<T>(value: T, standard: unknown): T | undefined {
  return value === standard || JSON.stringify(value) === JSON.stringify(standard) ? undefined : value;
}
const filled = <T>(items: readonly T[]): readonly T[] | undefined => (items.length > 0 ? items : undefined);
const keyed = <T extends object>(value: T): T | undefined => (Object.keys(value).length > 0 ? value : undefined);
const lean = (value: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(value).filter(([, part]) => part !== undefined));

/** A file name for a design that every file system takes: `fernhollow-observatory.knot.json`. */
export function fileNameOf(design: Design): string {
  const stem = design.name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return `${stem || 'design'}.knot.json`;
}
