/** Port State Transition machine, PST (IEEE 802.1Q-2018 13.38): opens and closes a port for learning and for frames. */
import type { TreePort } from './state';

export function portStateTransition(p: TreePort): boolean {
  const enter = (state: TreePort['pst']): true => {
    p.pst = state;
    p.learning = state !== 'DISCARDING';
    p.forwarding = state === 'FORWARDING';
    p.port.bridge.around.changed(p.port.index);
    return true;
  };
  switch (p.pst) {
    case 'DISCARDING':
      return p.learn && enter('LEARNING');
    case 'LEARNING':
      return p.forward ? enter('FORWARDING') : !p.learn && enter('DISCARDING');
    case 'FORWARDING':
      return !p.forward && enter('DISCARDING');
  }
}
