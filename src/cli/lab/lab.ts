/** A lab: a design built of real switches, changed as a scenario says, and held against what we say. */
import path from 'node:path';
import { mkdirSync, writeFileSync } from 'node:fs';
import { labDesign, type LabSystem } from '../../core/exchange/lab/labDesign';
import { judgeLab, type Verdict } from '../../core/exchange/lab/judge';
import { FORMS, settingsFiles } from '../../core/exchange/settings/forms';
import type { SettingsForm } from '../../core/exchange/settings/form';
import type { SwitchReading } from '../../core/exchange/readings/reading';
import type { Design, Switch } from '../../core/model/document';
import type { SwitchId, TreeId } from '../../core/model/ids';
import { run, runIn } from './run';
import { hasLldpd, readLldpd, startLldpd } from './lldpd';
import { Simulated } from './simulated';
import { noteNamespace, type NewLab } from './standing';
import { SYSTEMS, type Abilities, type Place, type System } from './systems';
import { hostTag, portName, signals, wiringOf, type Wiring } from './wiring';

/** What its folder has of the files that built it. */
const FILES = 'settings';

export interface RunningOptions {
  /** What this machine's kernel has. */
  readonly able?: Abilities;
  /** Switches that stay in our simulator. */
  readonly joined?: ReadonlySet<SwitchId>;
}

export class RunningLab {
  /** What simulated switches did not understand: sentences. */
  readonly notes = new Set<string>();
  /** What it is built of now: the design as these switches can be it. */
  design: Design;
  readonly leftOut: readonly string[];
  readonly wiring: Wiring;
  private readonly lab: NewLab;
  private readonly tree: TreeId | null;
  private readonly kind: LabSystem;
  private readonly able: Abilities;
  private readonly system: System;
  private readonly form: SettingsForm;
  private readonly joined: ReadonlySet<SwitchId>;
  /** Null where all switches are real. */
  private readonly simulated: Simulated | null;
  private readonly lldpd: boolean;
  private told = 0;

  constructor(
    lab: NewLab,
    design: Design,
    kind: LabSystem,
    tree: TreeId | null,
    { able = SYSTEMS[kind].abilities(), joined = new Set() }: RunningOptions = {},
  ) {
    const { vlans, tags } = able;
    this.joined = joined;
    const made = this.madeOf(design, kind, tree, able);
    this.lldpd = joined.size > 0 && hasLldpd();
    this.lab = lab;
    this.able = able;
    this.kind = kind;
    this.tree = tree;
    this.design = made.design;
    this.leftOut = [
      ...made.leftOut,
      ...(vlans ? [] : ["This kernel's bridge does not tell VLANs apart: none is set."]),
      ...(tags
        ? []
        : ['This kernel puts no VLAN tags on frames of hosts: where one would be needed, a host has no address.']),
      ...(joined.size > 0 && !this.lldpd ? ['lldpd is not here: what real switches see by LLDP is not compared.'] : []),
      ...(joined.size > 0 ? ['Frames of hosts do not pass simulated switches: those speak, and forward nothing.'] : []),
    ];
    this.system = SYSTEMS[kind];
    this.form = FORMS.find(({ key }) => key === kind)!;
    this.wiring = wiringOf(this.design, lab.id, joined);
    const { simulated, wires } = this.wiring;
    this.simulated =
      simulated === null ? null : new Simulated(path.join(lab.folder, 'simulated'), simulated, [...joined], wires);
  }

  private madeOf(design: Design, kind: LabSystem, tree: TreeId | null, { bonds }: Abilities) {
    return labDesign(design, kind, tree, { bonds, joined: this.joined });
  }

  /** Those that are built. */
  private get real(): Switch[] {
    return this.design.switches.filter(({ id }) => !this.joined.has(id));
  }

  /** Makes namespaces, cables, switches and hosts. */
  build(): void {
    const { switches, hosts, cables } = this.wiring;
    for (const name of new Set([...switches.values(), ...hosts.values()])) {
      noteNamespace(this.lab, name);
      run('ip', ['netns', 'add', name]);
      // A switch has no addresses of its own; what it would say by itself is in nobody's way then.
      if (!name.includes('-host')) runIn(name, 'sh', ['-c', 'echo 1 > /proc/sys/net/ipv6/conf/default/disable_ipv6']);
      run('ip', ['-n', name, 'link', 'set', 'lo', 'up']);
    }
    batch(
      null,
      cables.map(
        ([a, b]) =>
          `link add name ${a.interface} netns ${a.namespace} type veth peer name ${b.interface} netns ${b.namespace}`,
      ),
    );
    for (const sw of this.real) this.system.start(sw, this.placeOf(sw.id), this.able);
    if (this.simulated) {
      const { namespace } = this.simulated;
      batch(
        namespace,
        cables.flatMap((ends) =>
          ends.flatMap((end) => (end.namespace === namespace ? [`link set dev ${end.interface} up`] : [])),
        ),
      );
      this.simulated.start(this.lab.cli, this.design);
    }
    this.runScripts(null);
    this.setSignals(null);
    if (this.lldpd) for (const sw of this.real) startLldpd(sw.id, this.placeOf(sw.id));
    this.design.hosts.forEach((host, h) => this.setHost(host, h));
  }

  /** Goes on to another state of the design, by the scripts that lead there. */
  follow(design: Design): void {
    const before = this.design;
    this.design = this.madeOf(design, this.kind, this.tree, this.able).design;
    this.simulated?.follow(this.design);
    this.runScripts(before);
    this.setSignals(before);
  }

  /** Reads every switch that has power, and compares. */
  judge(): Verdict {
    const on = this.real.filter(({ up }) => up);
    const simulated = this.simulated?.read();
    for (const note of simulated?.notes ?? []) this.notes.add(note);
    const verdict = judgeLab(
      this.design,
      new Map([...on.map((sw) => [sw.id, this.read(sw)] as const), ...(simulated?.readings ?? [])]),
    );
    // A switch that takes an interface reads its flags and writes them: an end set up in between is down again then.
    if (verdict.differences.length > 0) this.setSignals(null);
    return verdict;
  }

  private read(sw: Switch): SwitchReading {
    const place = this.placeOf(sw.id);
    const reading = this.system.read(sw, place, this.able);
    return this.lldpd ? { ...reading, neighbours: readLldpd(place) } : reading;
  }

  private placeOf(id: SwitchId): Place {
    const namespace = this.wiring.switches.get(id)!;
    // Sockets have short paths, and switches may have long names.
    const s = this.design.switches.findIndex((sw) => sw.id === id);
    return { namespace, folder: path.join(this.lab.folder, `switch${s}`) };
  }

  private runScripts(from: Design | null): void {
    const folder = path.join(this.lab.folder, FILES, String(this.told));
    this.told += 1;
    mkdirSync(folder, { recursive: true });
    const only = this.real.map(({ id }) => id);
    for (const { switch: id, files } of settingsFiles(this.design, this.form, { from, only }))
      for (const { name, text } of files) {
        const file = path.join(folder, name);
        writeFileSync(file, text);
        const place = this.placeOf(id);
        runIn(place.namespace, 'sh', [file], { env: this.system.environment(place, this.able) });
      }
  }

  /** Sets cables' ends up and down: all of them, or those that are otherwise than before. */
  private setSignals(from: Design | null): void {
    const before = from ? signals(from, this.joined) : null;
    const now = signals(this.design, this.joined);
    for (const sw of this.real) {
      const lines = sw.ports.flatMap((port) => {
        const up = now.get(`${sw.id} ${port.id}`)!;
        return before?.get(`${sw.id} ${port.id}`) === up
          ? []
          : [`link set dev ${portName(this.design, { switch: sw.id, port: port.id })} ${up ? 'up' : 'down'}`];
      });
      if (lines.length > 0) batch(this.placeOf(sw.id).namespace, lines);
    }
  }

  /** A host has its cards up, as one bond where they are, and an address in its VLAN. */
  private setHost(host: Design['hosts'][number], h: number): void {
    const namespace = this.wiring.hosts.get(host.id)!;
    const cards = host.attach.map((_, i) => `eth${i}`);
    const tag = hostTag(this.design, host);
    const lines = cards.map((card) => `link set dev ${card} up`);
    let own = cards[0];
    if (own === undefined) return;
    if (host.bundle) {
      const { mode, timeout } = host.bundle;
      const lacp = mode === 'active' || mode === 'passive';
      own = 'bond0';
      lines.unshift(
        `link add name bond0 type bond ${lacp ? `mode 802.3ad lacp_active ${mode === 'active' ? 'on' : 'off'} lacp_rate ${timeout}` : 'mode balance-xor'} miimon 100`,
        ...cards.flatMap((card) => [`link set dev ${card} down`, `link set dev ${card} master bond0`]),
      );
      lines.push('link set dev bond0 up');
    } else lines.unshift(`link set dev ${own} address ${host.mac}`);
    if (tag !== null && !this.able.tags) return batch(namespace, lines);
    if (tag !== null) {
      lines.push(`link add link ${own} name vlan${tag} type vlan id ${tag}`, `link set dev vlan${tag} up`);
      own = `vlan${tag}`;
    }
    // 2001:db8::/32 is for documentation (RFC 3849).
    lines.push(`addr add 2001:db8:0:${host.vlan.toString(16)}::${(h + 1).toString(16)}/64 dev ${own} nodad`);
    batch(namespace, lines);
  }
}

/** Lines of `ip`, all at once. */
function batch(namespace: string | null, lines: readonly string[]): void {
  run('ip', [...(namespace === null ? [] : ['-n', namespace]), '-batch', '-'], { input: `${lines.join('\n')}\n` });
}
