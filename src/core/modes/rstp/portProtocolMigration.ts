/** Port Protocol Migration machine, PPM (IEEE 802.1Q-2018 13.32): falls back to version 0 where a classic bridge is heard, and returns. */
import { MIGRATE_TIME, cist, inSeconds, isZero, type BridgePort } from './state';

export function portProtocolMigration(port: BridgePort): boolean {
  const { bridge } = port;
  switch (port.ppm) {
    case 'CHECKING_RSTP':
      return port.portEnabled && isZero(bridge, port.mdelayWhile) && enter(port, 'SENSING');
    case 'SELECTING_STP':
      return (isZero(bridge, port.mdelayWhile) || !port.portEnabled || port.mcheck) && enter(port, 'SENSING');
    case 'SENSING':
      if (!port.portEnabled || port.mcheck || (port.rstpVersion && !port.sendRSTP && port.rcvdRSTP))
        return enter(port, 'CHECKING_RSTP');
      return port.sendRSTP && port.rcvdSTP && enter(port, 'SELECTING_STP');
  }
}

function enter(port: BridgePort, state: BridgePort['ppm']): true {
  port.ppm = state;
  if (state === 'SENSING') {
    port.rcvdRSTP = port.rcvdSTP = false;
    return true;
  }
  const { bridge } = port;
  if (state === 'CHECKING_RSTP') port.mcheck = false;
  const sendRSTP = state === 'CHECKING_RSTP' && port.rstpVersion;
  // What a bridge of a region offers depends on it (13.10).
  if (port.sendRSTP !== sendRSTP && bridge.region) cist(port).reselect = true;
  port.sendRSTP = sendRSTP;
  port.mdelayWhile = inSeconds(port.bridge, MIGRATE_TIME);
  return true;
}
