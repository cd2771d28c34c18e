/** Port Protocol Migration machine, PPM (IEEE 802.1Q-2018 13.32): falls back to version 0 where a classic bridge is heard, and returns. */
import { MIGRATE_TIME, inSeconds, isZero, type BridgePort } from './state';

export function portProtocolMigration(port: BridgePort): boolean {
  const { bridge } = port;
  const enter = (state: BridgePort['ppm']): true => {
    port.ppm = state;
    if (state === 'CHECKING_RSTP') {
      port.mcheck = false;
      port.sendRSTP = true;
      port.mdelayWhile = inSeconds(bridge, MIGRATE_TIME);
    } else if (state === 'SELECTING_STP') {
      port.sendRSTP = false;
      port.mdelayWhile = inSeconds(bridge, MIGRATE_TIME);
    } else port.rcvdRSTP = port.rcvdSTP = false;
    return true;
  };
  switch (port.ppm) {
    case 'CHECKING_RSTP':
      return port.portEnabled && isZero(bridge, port.mdelayWhile) && enter('SENSING');
    case 'SELECTING_STP':
      return (isZero(bridge, port.mdelayWhile) || !port.portEnabled || port.mcheck) && enter('SENSING');
    case 'SENSING':
      if (!port.portEnabled || port.mcheck || (!port.sendRSTP && port.rcvdRSTP)) return enter('CHECKING_RSTP');
      return port.sendRSTP && port.rcvdSTP && enter('SELECTING_STP');
  }
}
