/** What scripts of settings begin with. */
import type { SwitchSet } from './settings';

/** `what`: "bridge, bonds, VLANs and spanning tree". A name of people's own stands in a comment, on one line. */
export function head(sw: SwitchSet, what: string, was: SwitchSet | null): string[] {
  const about = was ? `what changes of its ${what}` : what;
  return [
    '#!/bin/sh',
    `# ${sw.name.replaceAll(/\p{Cc}/gu, ' ')}: ${about}. Ports are ${sw.ports[0]?.interface ?? 'port1'} and so on: rename yours, or this.`,
    'set -e',
    '',
  ];
}
