'use client';
/** What both ends of a link are in each shown tree, and why. */
import type { Link, LinkEnd } from '../../../core/model/document';
import { bridgePortOf } from '../../../core/topology/network';
import { explainPort } from '../../../core/tree/explain/explain';
import { useWorkbench } from '../../state/context';
import { WhyTrees } from './WhyTrees';

export function WhyLink({ link: { a, b } }: { readonly link: Link }) {
  const switches = useWorkbench((state) => state.design.switches);
  const nameOf = (end: LinkEnd) => switches.find((sw) => sw.id === end.switch)?.name ?? end.switch;
  const settled = useWorkbench((state) => state.lens === 'Break');
  return (
    <WhyTrees title={settled ? 'Why, before anything happens' : 'Why'}>
      {(tree, solution) =>
        [a, b].map((end, i) => {
          const { network } = solution;
          const p = bridgePortOf(network, network.portIndexOf(end.switch, end.port));
          const why = p < 0 ? null : explainPort(solution, tree, p);
          return (
            <p key={i}>
              <b>
                {nameOf(end)} port{' '}
                {p >= 0 && network.ports[p]!.id !== end.port ? `${end.port}, bundle ${network.ports[p]!.id}` : end.port}
                .
              </b>{' '}
              {why?.sentence ?? 'Not in this tree.'}
            </p>
          );
        })
      }
    </WhyTrees>
  );
}
