/** Port State Transition machine, PST (IEEE 802.1Q-2018 13.38): opens and closes a port for learning and for frames. */
import type { TreePort } from './state';

export function portStateTransition(p: TreePort): boolean {
  switch (p.pst) {
    case 'DISCARDING':
      return p.learn && enter(p, 'LEARNING');
    case 'LEARNING':
      return p.forward ? enter(p, 'FORWARDING') : !p.learn && enter(p, 'DISCARDING');
    case 'FORWARDING':
      return !p.forward && enter(p, 'DISCARDING');
  }
}

function enter(p: TreePort, state: TreePort['pst']): true {
  p.pst = state;
  p.learning = state !== 'DISCARDING';
  p.forwarding = state === 'FORWARDING';
  p.port.bridge.around.changed(p.port.index, p.tree.index);
  return true;
}
