/** All switches of a design as stand-ins, each at a loopback address of its own. */
import { fail, ok, type Result } from '../core/base/result';
import { contextOf } from '../core/exchange/observation/snmp/write';
import type { Design } from '../core/model/document';
import type { SwitchId } from '../core/model/ids';
import type { Credential } from './credentials';
import { Stage } from './stage';
import { standIn, type StandIn } from './standIn';

export interface StandIns {
  readonly stage: Stage;
  readonly addresses: ReadonlyMap<SwitchId, string>;
  close(): void;
}

interface Options {
  readonly addresses: readonly string[];
  readonly port: number;
  readonly credential: Credential;
  /** Seconds that pass there in one of ours. */
  readonly speed: number;
  /** An address that cannot be taken. */
  readonly failed: (address: string, error: Error) => void;
}

export function startStandIns(design: Design, { addresses, port, credential, speed, failed }: Options): StandIns {
  const addressOf = new Map(design.switches.map((sw, s) => [sw.id, addresses[s]!]));
  const community = credential.version === '2c' ? credential.community : null;
  const stage = new Stage(design, (id) => addressOf.get(id)!, community, speed);
  const all: StandIn[] = design.switches.map((sw) => {
    const address = addressOf.get(sw.id)!;
    const contexts = (stage.observed(sw.id)?.trees ?? []).map(({ tree }) => contextOf(tree));
    return standIn(
      { address, port },
      credential,
      contexts,
      () => stage.agent(sw.id),
      (error) => failed(address, error),
    );
  });
  return { stage, addresses: addressOf, close: () => all.forEach((each) => each.close()) };
}

/** Addresses of the loopback interface alone: nobody else is spoken to. */
export function loopbackFrom(first: string, count: number): Result<string[], string> {
  const parts = /^127\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/.exec(first)?.slice(1).map(Number);
  if (!parts || parts.some((part) => part > 255))
    return fail(`found "${first}"; allowed: an address of the loopback interface, such as 127.1.0.1`);
  const from = parts[0]! * 65_536 + parts[1]! * 256 + parts[2]!;
  return ok(
    Array.from({ length: count }, (_, i) => {
      const at = from + i;
      return `127.${at >> 16}.${(at >> 8) & 255}.${at & 255}`;
    }),
  );
}
