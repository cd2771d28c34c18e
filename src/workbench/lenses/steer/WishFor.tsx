'use client';
/** Several links and ends at once: put on the list of wishes. */
import type { Wish } from '../../../core/analysis/steering/wishes';
import { useWorkbench } from '../../state/context';
import type { Chosen } from '../../state/subject';
import styles from '../../ui/panel.module.css';
import { counted } from '../../../core/base/words';
import { AddWishes } from './SteerHere';

export function WishFor({ chosen: { links, ports } }: { readonly chosen: Chosen }) {
  const all = useWorkbench((state) => state.design.links);
  const cabled = new Set(all.flatMap(({ a, b }) => [a, b]).map((end) => `${end.switch}\n${end.port}`));
  const wishes = [
    ...links.map((link): Wish => ({ wants: 'carry', link: link.id })),
    ...ports
      .filter((each) => cabled.has(`${each.switch}\n${each.port.id}`))
      .map((each): Wish => ({ wants: 'block', switch: each.switch, port: each.port.id })),
  ];
  if (wishes.length === 0) return null;
  return (
    <section className={styles.section} aria-label="Steer">
      <h3>{wishesTitle(links.length, wishes.length - links.length)}</h3>
      <div className={styles.buttons}>
        <AddWishes wishes={wishes} />
      </div>
    </section>
  );
}

/** `Carry the frames on 2 links, block at 1 port`. */
function wishesTitle(links: number, ports: number): string {
  const parts = [
    links > 0 && `carry the frames on ${counted(links, 'link')}`,
    ports > 0 && `block at ${counted(ports, 'port')}`,
  ]
    .filter(Boolean)
    .join(', ');
  return parts[0]!.toUpperCase() + parts.slice(1);
}
