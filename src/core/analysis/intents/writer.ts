/** Writes what intents are about, by names for people or by ids for the document. */
import { writtenName } from '../../cabling/tokens';
import type { Design } from '../../model/document';
import { nameOf } from '../../model/names';
import type { End, HostsOf, PlacesOf, SwitchesOf, TreesOf } from './reader';

type Thing = { readonly id: string; readonly name?: string | undefined };

export class Writer {
  private readonly design: Design;
  private readonly byId: boolean;
  private readonly reserved: ReadonlySet<string>;

  constructor(design: Design, byId: boolean, reserved: ReadonlySet<string>) {
    this.design = design;
    this.byId = byId;
    this.reserved = reserved;
  }

  switches(all: readonly SwitchesOf[]): string {
    return all.map((each) => this.switchesOf(each)).join(', ');
  }
  places(all: readonly PlacesOf[]): string {
    return all.map((each) => (each.by === 'link' ? `link ${this.end(each.end)}` : this.switchesOf(each))).join(', ');
  }
  hosts(all: readonly HostsOf[]): string {
    return all.map((each) => this.hostsOf(each)).join(', ');
  }
  trees(of: TreesOf): string {
    if (of.by === 'all') return 'all trees';
    return of.by === 'vlans' ? `vlan ${of.vlans}` : `instance ${of.mstids.join(',')}`;
  }
  end({ switch: sw, port }: End): string {
    const bundle = this.design.bundles.find((each) => each.switch === sw && each.id === port);
    return `${this.called(this.design.switches, sw)} ${this.write(bundle ?? { id: port })}`;
  }

  private switchesOf(of: SwitchesOf): string {
    switch (of.by) {
      case 'switch':
        return this.called(this.design.switches, of.id);
      case 'group':
        return `group ${this.called(this.design.groups, of.id)}`;
      case 'tier':
        return `${of.tier} switches`;
    }
  }
  private hostsOf(of: HostsOf): string {
    switch (of.by) {
      case 'host':
        return this.called(this.design.hosts, of.id);
      case 'all':
        return 'all hosts';
      case 'vlans':
        return `hosts of vlan ${of.vlans}`;
      case 'switches':
        return `hosts of ${this.switchesOf(of.of)}`;
    }
  }

  /** By its name; by its id where another thing has that name, or where ids are asked for. */
  private called(all: readonly Thing[], id: string): string {
    const thing = all.find((each) => each.id === id) ?? { id };
    const name = nameOf(thing);
    const first = all.find((each) => each.name === name) ?? all.find((each) => each.id === name);
    return this.write(this.byId || first?.id !== id ? { id } : thing);
  }
  private write(thing: Thing): string {
    return writtenName(this.byId ? thing.id : nameOf(thing), (word) => !this.reserved.has(word));
  }
}
