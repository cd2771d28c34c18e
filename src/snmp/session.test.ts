/** Agents that do not do what they should: the reader ends, says what was wrong, and keeps what could be read. */
import snmp from 'net-snmp';
import { fernhollow } from '../core/demo/demos';
import { observedAtRest } from '../core/testing/observed';
import { agentOf } from '../core/exchange/observation/snmp/write';
import type { Varbind } from '../core/exchange/observation/snmp/mib';
import { readNetwork, type Reading } from './reader';
import { standIn, type StandIn } from './standIn';
import { toLibrary } from './values';

const credential = { version: '2c', community: 'look' } as const;
const PORT = 21_981;
const [first] = observedAtRest(fernhollow()).switches;
const { own } = agentOf(first!, 100);
const open: { close(): void }[] = [];
afterEach(() => open.splice(0).forEach((each) => each.close()));

const reading = (...addresses: string[]): Reading => ({
  ...{ addresses, port: PORT, credential, isNamed: () => false, most: 10, atOnce: 4, timeout: 300 },
});
const read = (...addresses: string[]) =>
  readNetwork(reading(...addresses), new AbortController().signal, { read: () => undefined, failed: () => undefined });

function answers(address: string, all: readonly Varbind[]): StandIn {
  const agent = standIn(
    { address, port: PORT },
    credential,
    [],
    () => ({ own: all, bridges: new Map() }),
    (error) => {
      throw error;
    },
  );
  open.push(agent);
  return agent;
}

/** Answers each bulk request by what is given for its name, after some time. */
function odd(address: string, answer: (oid: string) => readonly Varbind[], delay = 0): void {
  const timers: NodeJS.Timeout[] = [];
  const agent = snmp.createAgent({ address, port: PORT, engineID: '8000000004aabbccdd' }, () => undefined);
  agent.getAuthorizer().addCommunity(credential.community);
  agent.getBulkRequest = (socket, message, from) => {
    const response = message.pdu.getResponsePduForRequest();
    response.varbinds = answer(message.pdu.varbinds[0]!.oid).map(toLibrary);
    timers.push(setTimeout(() => agent.sendResponse(socket, from, message, response), delay));
  };
  open.push({
    close: () => {
      timers.forEach(clearTimeout);
      agent.close(() => undefined);
    },
  });
}
const name = (oid: string): Varbind => ({ oid, type: 'octets', value: new TextEncoder().encode('loop') });

it('ends walks that go round, and says so', async () => {
  odd('127.97.0.1', (oid) =>
    oid.startsWith('1.3.6.1.2.1.1') && !oid.startsWith('1.3.6.1.2.1.17') ? [name('1.3.6.1.2.1.1.5.0')] : [],
  );
  const { switches, leftOut } = await read('127.97.0.1');
  expect(leftOut).toEqual([]);
  expect(switches).toMatchObject([{ name: 'loop' }]);
  expect(switches[0]!.missing).toContain('1.3.6.1.2.1.1: its names do not go on in order, so the rest was left.');
});

it('ends a table without end', async () => {
  let at = 0;
  odd('127.97.0.2', (oid) =>
    oid.startsWith('1.3.6.1.2.1.2.2')
      ? Array.from({ length: 400 }, (): Varbind => ({
          oid: `1.3.6.1.2.1.2.2.1.1.${(at += 1)}`,
          type: 'integer',
          value: at,
        }))
      : oid === '1.3.6.1.2.1.1'
        ? [name('1.3.6.1.2.1.1.5.0')]
        : [],
  );
  const { switches } = await read('127.97.0.2');
  expect(switches[0]!.missing.join()).toContain('values, the rest was left');
}, 60_000);

it('takes an answer of nothing, and one that comes too late, for what they are', async () => {
  odd('127.97.0.3', () => []);
  odd('127.97.0.4', () => [name('1.3.6.1.2.1.1.5.0')], 2000);
  const { switches, leftOut } = await read('127.97.0.3', '127.97.0.4');
  expect(switches).toEqual([]);
  expect([...leftOut].sort()).toEqual([
    '127.97.0.3: it answers, and tells nothing that is read.',
    '127.97.0.4: it does not answer.',
  ]);
});

it('reads a switch at two addresses once', async () => {
  answers('127.97.0.5', own);
  answers('127.97.0.6', own);
  const { switches, leftOut } = await read('127.97.0.5', '127.97.0.6');
  expect(switches).toHaveLength(1);
  expect(leftOut[0]).toMatch(/it is the switch that answers at 127\.97\.0\.[56], too\.$/);
});

it('names columns of a wrong kind, and reads the rest', async () => {
  answers(
    '127.97.0.7',
    own.map((each) => (each.oid === '1.3.6.1.2.1.1.5.0' ? { ...each, type: 'integer', value: 7 } : each)),
  );
  const { switches } = await read('127.97.0.7');
  expect(switches[0]!.missing).toContain('sysName is of another kind than the standard has it.');
  expect(switches[0]!.ports).toHaveLength(first!.ports.length);
});

it('stops where it is told to, and keeps what was read', async () => {
  answers('127.97.0.8', own);
  odd('127.97.0.9', () => [name('1.3.6.1.2.1.1.5.0')], 5000);
  const stop = new AbortController();
  const observation = await readNetwork(
    { ...reading('127.97.0.8', '127.97.0.9', '127.97.0.10'), atOnce: 1 },
    stop.signal,
    { read: () => stop.abort(), failed: () => undefined },
  );
  expect(observation.switches).toHaveLength(1);
  expect(observation.leftOut).toContain('It was stopped before all were asked.');
});
