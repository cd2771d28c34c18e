/** `knot-path picture`. */
import { writeFileSync } from 'node:fs';
import { Option } from 'commander';
import { foldableGroups, standIns } from '../../core/analysis/groups/groups';
import type { SwitchId } from '../../core/model/ids';
import type { PictureOf } from '../../workbench/map/picture/pictureOf';
import { FONT_FACES } from '../fonts';
import { loadSolution, treeCalled, Unusable } from '../input';
import type { Verb } from '../verb';

interface Options {
  readonly tree?: string[];
  readonly lens: 'root' | 'cable';
  readonly folded?: boolean;
  readonly dark?: boolean;
  readonly scale: string;
  readonly output: string;
}

async function runPicture(file: string, { tree, lens, folded, dark, scale, output }: Options): Promise<void> {
  const { design, solution } = loadSolution(file);
  const factor = Number(scale);
  if (!(factor >= 0.05 && factor <= 3)) throw new Unusable(`--scale: found "${scale}"; allowed: 0.05 to 3`);
  const chosen = tree ? tree.map((id) => treeCalled(solution, id).id) : solution.trees.slice(0, 1).map(({ id }) => id);
  if (chosen.length > MOST) throw new Unusable(`--tree: found ${chosen.length} trees; allowed: at most ${MOST}`);
  const groups = foldableGroups(design);
  const { pictureText, tokensFor } = await import('../../workbench/map/picture/svgText');
  const of: PictureOf = {
    design,
    solution,
    trees: lens === 'cable' ? [] : chosen,
    stands: folded ? standIns(groups, new Set(groups.map(({ group }) => group.id))) : new Map<SwitchId, never>(),
    open: folded || design.groups.length === 0 ? [] : groups,
    scale: factor,
    title: design.name.slice(0, 120),
    css: `${FONT_FACES}${tokensFor(TOKENS, dark ? 'dark' : 'light')}`,
  };
  const text = pictureText(of);
  if (output === '-') process.stdout.write(text);
  else
    try {
      writeFileSync(output, text);
    } catch (error) {
      throw new Unusable(`${output}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
    }
}

/** Trees side by side. */
const MOST = 6;

export const pictureCommand: Verb = (program) =>
  void program
    .command('picture')
    .description('the map as an SVG file')
    .argument('<file>', 'design document, - for standard input')
    .option('--tree <id...>', 'these trees side by side: vlan:15; the first one where none is named')
    .addOption(new Option('--lens <lens>', 'trees, or cables alone').choices(['root', 'cable']).default('root'))
    .option('--folded', 'groups, or the blocks of the network, as boxes')
    .option('--dark', 'on dark paper')
    .option('--scale <factor>', 'of the distances; text keeps its size', '1')
    .requiredOption('-o, --output <file>', 'where to write it, - for standard output')
    .action(runPicture);
