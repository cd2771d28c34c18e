/** A simulated switch that speaks real SNMP, versions 2c and 3: the library frames and secures messages, the answers are ours. */
import { createHash } from 'node:crypto';
import snmp, { type LibraryVarbind, type Message } from 'net-snmp';
import { compareOids, type Varbind } from '../core/exchange/observation/snmp/mib';
import type { Agent } from '../core/exchange/observation/snmp/write';
import type { Credential } from './credentials';
import { security } from './security';
import { toLibrary } from './values';

/** Most that one answer to a bulk request holds. */
const MOST_IN_BULK = 60;

/** The community by which a bridge within a switch is asked. */
export const communityWithin = (community: string, context: string): string => `${community}.${context}`;

export interface StandIn {
  close(): void;
}

/** Answers at an address until it is closed; `now` is asked at each request, and null is silence. */
export function standIn(
  { address, port }: { readonly address: string; readonly port: number },
  credential: Credential,
  contexts: readonly string[],
  now: () => Agent | null,
  failed: (error: Error) => void,
): StandIn {
  // The same at each start, as a switch's is: what is known of it goes on holding.
  const engineID = `80000000047e${createHash('sha256').update(address).digest('hex').slice(0, 16)}`;
  const agent = snmp.createAgent({ address, port, engineID }, (error: Error | null) => {
    // Of messages that cannot be answered nobody is told; of an address that cannot be taken, the engineer is.
    if (error && 'syscall' in error) failed(error);
  });
  const authorizer = agent.getAuthorizer();
  if (credential.version === '2c') {
    authorizer.addCommunity(credential.community);
    for (const context of contexts) authorizer.addCommunity(communityWithin(credential.community, context));
  } else authorizer.addUser(security(credential));

  const tableFor = ({ version, community, pdu }: Message): readonly Varbind[] | null => {
    const all = now();
    if (!all) return null;
    if (version === snmp.Version3) return pdu.contextName ? (all.bridges.get(pdu.contextName) ?? []) : all.own;
    const own = credential.version === '2c' ? credential.community : '';
    const asked = String(community ?? '');
    return asked.startsWith(`${own}.`) ? (all.bridges.get(asked.slice(own.length + 1)) ?? []) : all.own;
  };
  const answer = (socket: unknown, message: Message, from: unknown, varbinds: LibraryVarbind[]): void => {
    const response = message.pdu.getResponsePduForRequest();
    response.varbinds = varbinds;
    agent.sendResponse(socket, from, message, response);
  };
  const ended = (oid: string): LibraryVarbind => ({ oid, type: snmp.ObjectType.EndOfMibView, value: null });
  const next = (all: readonly Varbind[], oid: string): LibraryVarbind => {
    const at = firstAfter(all, oid);
    return at < all.length ? toLibrary(all[at]!) : ended(oid);
  };
  agent.getRequest = (socket, message, from) => {
    const all = tableFor(message);
    if (!all) return;
    const found = message.pdu.varbinds.map(({ oid }) => {
      const at = firstAfter(all, oid) - 1;
      return all[at]?.oid === oid ? toLibrary(all[at]) : { oid, type: snmp.ObjectType.NoSuchInstance, value: null };
    });
    answer(socket, message, from, found);
  };
  agent.getNextRequest = (socket, message, from) => {
    const all = tableFor(message);
    if (!all) return;
    answer(
      socket,
      message,
      from,
      message.pdu.varbinds.map(({ oid }) => next(all, oid)),
    );
  };
  agent.getBulkRequest = (socket, message, from) => {
    const all = tableFor(message);
    if (!all) return;
    const { varbinds, nonRepeaters = 0, maxRepetitions = 0 } = message.pdu;
    const found = varbinds.slice(0, nonRepeaters).map(({ oid }) => next(all, oid));
    let last = varbinds.slice(nonRepeaters).map(({ oid }) => oid);
    for (let i = 0; i < maxRepetitions && found.length + last.length <= MOST_IN_BULK && last.length > 0; i += 1) {
      const row = last.map((oid) => next(all, oid));
      found.push(...row);
      if (row.every(({ type }) => type === snmp.ObjectType.EndOfMibView)) break;
      last = row.map(({ oid }) => oid);
    }
    answer(socket, message, from, found);
  };
  agent.setRequest = (socket, message, from) => {
    if (!now()) return;
    const response = message.pdu.getResponsePduForRequest();
    response.varbinds = [...message.pdu.varbinds];
    response.errorStatus = snmp.ErrorStatus.NotWritable;
    response.errorIndex = 1;
    agent.sendResponse(socket, from, message, response);
  };
  // A context is a bridge within the switch, not another agent.
  agent.onProxyRequest = (socket, message, from) => {
    const by = {
      [snmp.PduType.GetRequest]: agent.getRequest,
      [snmp.PduType.GetNextRequest]: agent.getNextRequest,
      [snmp.PduType.GetBulkRequest]: agent.getBulkRequest,
      [snmp.PduType.SetRequest]: agent.setRequest,
    }[message.pdu.type];
    by?.(socket, message, from);
  };
  return { close: () => agent.close(() => undefined) };
}

/** The place of the first name behind one. */
function firstAfter(all: readonly Varbind[], oid: string): number {
  let [from, to] = [0, all.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (compareOids(all[middle]!.oid, oid) <= 0) from = middle + 1;
    else to = middle;
  }
  return from;
}
