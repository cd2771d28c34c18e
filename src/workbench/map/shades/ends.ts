/** The switches at both ends of links. */
import type { Link } from '../../../core/model/document';
import type { LinkId, SwitchId } from '../../../core/model/ids';

export type EndsOf = (link: LinkId) => readonly [SwitchId, SwitchId] | undefined;

export function endsIn(links: readonly Link[]): EndsOf {
  const ends = new Map(links.map((link) => [link.id, [link.a.switch, link.b.switch] as const]));
  return (link) => ends.get(link);
}
