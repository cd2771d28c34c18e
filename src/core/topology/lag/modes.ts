/** Which pairs of modes come up. */
import type { BundleMode } from '../../model/document';
import { initiates, negotiationOf } from './ends';

/** Both ends of a pair; `none`: the ports are in no bundle. */
export type EndMode = BundleMode | 'none';

/** `up`: both bundle; `down`: neither does, the ports are single ones; `one-sided`: one bundles alone, unchecked. */
export type ModeOutcome = 'up' | 'down' | 'one-sided';

export interface ModePair {
  readonly outcome: ModeOutcome;
  readonly why: string;
}

/** What two modes make of each other. */
export function modePair(a: EndMode, b: EndMode): ModePair {
  if (a === 'none' && b === 'none') return { outcome: 'down', why: 'No end bundles: the links are single ones.' };
  if (a === 'static' && b === 'static')
    return {
      outcome: 'up',
      why: 'Both ends bundle whatever has signal; nothing checks that they mean the same cables.',
    };
  if (a === 'static' || b === 'static') {
    const other = a === 'static' ? b : a;
    const alone =
      other === 'none'
        ? 'the other end forwards over each link by itself'
        : 'the other end finds no partner and keeps its ports single';
    return {
      outcome: 'one-sided',
      why: `The static end bundles unasked; ${alone}: frames come back, come twice or get lost, and spanning tree does not see it.`,
    };
  }
  if (a === 'none' || b === 'none')
    return { outcome: 'down', why: 'The end that negotiates finds no partner: its ports stay single.' };
  if (negotiationOf(a) !== negotiationOf(b))
    return {
      outcome: 'down',
      why: 'One end speaks LACP, the other the legacy negotiation: neither understands the other.',
    };
  if (initiates(a) || initiates(b))
    return {
      outcome: 'up',
      why: initiates(a) && initiates(b) ? 'Both ends speak first.' : 'One end speaks first, the other answers.',
    };
  return { outcome: 'down', why: 'Both ends wait for the other to speak.' };
}
