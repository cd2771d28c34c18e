/** Which end blocks or forwards, and which links carry or never carry a VLAN. */
import { treesName, type LinkId } from '../../../model/ids';
import { blocks, forwards } from '../../../tree/settled';
import type { Breach, Claim, Form, Way } from '../claim';
import type { End, TreesOf } from '../reader';
import { few, type Settled } from '../settled';

class EndClaim implements Claim {
  private readonly end: End;
  private readonly does: 'blocks' | 'forwards';
  private readonly trees: TreesOf;

  constructor(end: End, does: 'blocks' | 'forwards', trees: TreesOf) {
    this.end = end;
    this.does = does;
    this.trees = trees;
  }

  write(writer: Parameters<Claim['write']>[0]): string {
    return `${writer.end(this.end)} ${this.does} ${writer.trees(this.trees)}`;
  }

  judge(of: Settled): Breach | null {
    const wrong = this.wrongTrees(of);
    if (wrong === null) return { why: 'There is no such tree.', at: this.end };
    if (wrong.length === 0) return null;
    const p = of.portAt(this.end);
    const is = wrong.every((tree) => p >= 0 && forwards(tree, p))
      ? 'forwards'
      : wrong.every((tree) => p >= 0 && blocks(tree, p))
        ? 'blocks'
        : 'takes no part';
    const trees = wrong.map(({ id }) => id);
    return { why: `${of.names.end(this.end)} ${is} in ${treesName(trees)}.`, at: { ...this.end, trees } };
  }

  mend(of: Settled): Way | null {
    const trees = (this.wrongTrees(of) ?? []).map(({ id }) => id);
    const wish = this.does === 'blocks' ? { wants: 'block' as const, ...this.end } : carried(of, this.end);
    return wish && { label: 'Steer it', wishes: [wish], trees };
  }

  private wrongTrees(of: Settled) {
    const trees = of.treesOf(this.trees);
    const p = of.portAt(this.end);
    if (trees.length === 0) return null;
    return trees.filter((tree) => p < 0 || !(this.does === 'blocks' ? blocks(tree, p) : forwards(tree, p)));
  }
}

class CarryClaim implements Claim {
  private readonly end: End;
  private readonly never: boolean;
  private readonly vlans: string;

  constructor(end: End, never: boolean, vlans: string) {
    this.end = end;
    this.never = never;
    this.vlans = vlans;
  }

  write(writer: Parameters<Claim['write']>[0]): string {
    return `link ${writer.end(this.end)} ${this.never ? 'never carries' : 'carries'} vlan ${this.vlans}`;
  }

  judge(of: Settled): Breach | null {
    const wrong = this.wrongVlans(of);
    if (wrong.length === 0) return null;
    const link = linkAt(of, this.end);
    const which = link === null ? `The link at ${of.names.end(this.end)}` : `The link ${of.names.link(link)}`;
    const vlans = wrong.length === 1 ? `VLAN ${wrong[0]}` : `VLANs ${few(wrong.map(String), 5)}`;
    return {
      why: `${which} ${this.never ? 'carries' : 'does not carry'} ${vlans}.`,
      at: { ...(link === null ? this.end : { link }), trees: treesIn(of, wrong) },
    };
  }

  mend(of: Settled): Way | null {
    const wish = this.never ? null : carried(of, this.end);
    return wish && { label: 'Steer it', wishes: [wish], trees: treesIn(of, this.wrongVlans(of)) };
  }

  private wrongVlans(of: Settled): number[] {
    const p = of.portAt(this.end);
    const far = p < 0 ? -1 : of.network.far[p]!;
    return of.vlansOf(this.vlans).filter((vid) => {
      const passes = of.passes(vid);
      return (far >= 0 && passes[p] === 1 && passes[far] === 1) === this.never;
    });
  }
}

const treesIn = (of: Settled, vlans: readonly number[]) =>
  of.treesOf({ by: 'vlans', vlans: vlans.join(',') }).map(({ id }) => id);

/** A cable at an end: of a bundle, one of its members'. */
function linkAt({ network: { design } }: Settled, { switch: sw, port }: End): LinkId | null {
  const members = design.bundles.find((each) => each.switch === sw && each.id === port)?.ports ?? [port];
  const found = design.links.find(({ a, b }) =>
    [a, b].some((end) => end.switch === sw && members.some((member) => member === end.port)),
  );
  return found?.id ?? null;
}

function carried(of: Settled, end: End) {
  const link = linkAt(of, end);
  return link === null ? null : { wants: 'carry' as const, link };
}

export const endForms: readonly Form[] = [
  ...(['blocks', 'forwards'] as const).map((words): Form => ({
    words,
    about: 'subject',
    detail: words === 'blocks' ? 'a port keeps frames of trees out' : 'a port lets frames of trees pass',
    read: (reader, subject) => new EndClaim(reader.endOf(reader.only(subject)), words, reader.trees()),
  })),
  {
    words: 'link',
    about: 'nothing',
    detail: 'carries VLANs, or never does',
    read(reader) {
      const end = reader.port();
      const never = reader.takes('never carries', 'no frames of a VLAN pass it');
      if (!never) reader.needs('carries', 'frames of a VLAN pass it');
      reader.needs('vlan');
      return new CarryClaim(end, never, reader.vlans());
    },
  },
];
