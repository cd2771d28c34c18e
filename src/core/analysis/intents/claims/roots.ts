/** Who is root of which trees, who stands by, and who never becomes root. */
import { treesName, type SwitchId } from '../../../model/ids';
import { standbyRoot } from '../../../tree/explain/election';
import type { SettledTree } from '../../../tree/settled';
import { place, type Placement } from '../../roots/placing';
import type { Breach, Claim, Form, Way } from '../claim';
import type { Reader, Subject, SwitchesOf, TreesOf } from '../reader';
import type { Settled } from '../settled';

/** Who has a place in a tree now; null for nobody. */
const HOLDERS = {
  root: (of: Settled, tree: SettledTree) => of.rootOf(tree),
  standby(of: Settled, tree: SettledTree) {
    const root = of.rootOf(tree);
    const s = root === null ? -1 : standbyRoot(tree, root);
    return s < 0 ? null : s;
  },
} as const;

class PlaceClaim implements Claim {
  private readonly who: readonly SwitchesOf[];
  private readonly as: Placement;
  private readonly trees: TreesOf;

  constructor(who: readonly SwitchesOf[], as: Placement, trees: TreesOf) {
    this.who = who;
    this.as = as;
    this.trees = trees;
  }

  write(writer: Parameters<Claim['write']>[0]): string {
    const who = writer.switches(this.who);
    const alone = this.who.length === 1 && this.who[0]!.by === 'switch';
    if (this.as !== 'never') return `${who} ${alone ? 'is' : 'are'} ${this.as} of ${writer.trees(this.trees)}`;
    return `${who} never ${alone ? 'becomes' : 'become'} root${this.trees.by === 'all' ? '' : ` of ${writer.trees(this.trees)}`}`;
  }

  judge(of: Settled): Breach | null {
    const trees = of.treesOf(this.trees);
    if (trees.length === 0) return { why: 'There is no such tree.', at: {} };
    const who = new Set<SwitchId>(of.switchesOf(this.who));
    const wrong = this.wrongTrees(of, who);
    const [first] = wrong;
    if (!first) return null;
    const role = this.as === 'standby' ? 'standby' : 'root';
    const holder = HOLDERS[role](of, first);
    const alike = wrong.filter((tree) => HOLDERS[role](of, tree) === holder);
    const rest = wrong.length - alike.length;
    const more = rest === 0 ? '' : `, and ${rest} more ${rest === 1 ? 'tree differs' : 'trees differ'}`;
    const is = holder === null ? 'nobody' : of.nameAt(holder);
    return {
      why: `The ${role} of ${treesName(alike.map(({ id }) => id))} is ${is}${more}.`,
      at: {
        ...(holder === null ? {} : { switch: of.network.switches[holder]!.id }),
        trees: alike.map(({ id }) => id),
      },
    };
  }

  mend(of: Settled): Way | null {
    const all = of.switchesOf(this.who);
    const wrong = this.wrongTrees(of, new Set(all));
    if (this.as !== 'never' && all.length !== 1) return null;
    const movers = this.as === 'never' ? wrong.flatMap((tree) => HOLDERS.root(of, tree) ?? []) : wrong.map(() => -1);
    const placings = wrong.map((tree, i) =>
      place(of.network, tree.id, this.as === 'never' ? movers[i]! : of.network.switchIndex.get(all[0]!)!, this.as),
    );
    if (placings.length === 0 || !placings.every(({ done }) => done)) return null;
    const commands = placings.flatMap((placing) => (placing.done ? placing.commands : []));
    const who = this.as === 'never' ? 'them never root' : `${of.names.switch(all[0]!)} ${this.as}`;
    return { label: `Make ${who} of ${treesName(wrong.map(({ id }) => id))}`, commands };
  }

  private wrongTrees(of: Settled, who: ReadonlySet<SwitchId>): SettledTree[] {
    const role = this.as === 'standby' ? 'standby' : 'root';
    return of.treesOf(this.trees).filter((tree) => {
      const holder = HOLDERS[role](of, tree);
      const isThem = holder !== null && who.has(of.network.switches[holder]!.id);
      return this.as === 'never' ? isThem : !isThem;
    });
  }
}

const whoIs = (reader: Reader, subject: Subject): SwitchesOf[] => subject.map((item) => reader.switchesOf(item));

export const rootForms: readonly Form[] = [
  ...(['root', 'standby'] as const).flatMap((as) =>
    ['is', 'are'].map((verb): Form => ({
      words: `${verb} ${as} of`,
      about: 'subject',
      detail: as === 'root' ? 'root of trees; of several, one of them' : 'standby root of trees',
      read: (reader, subject) => new PlaceClaim(whoIs(reader, subject), as, reader.trees()),
    })),
  ),
  ...['never becomes root', 'never become root'].map((words): Form => ({
    words,
    about: 'subject',
    detail: 'of any tree, or of some',
    read: (reader, subject) =>
      new PlaceClaim(
        whoIs(reader, subject),
        'never',
        reader.takes('of', 'some trees') ? reader.trees() : { by: 'all' },
      ),
  })),
];
