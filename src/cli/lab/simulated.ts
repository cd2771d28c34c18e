/**
 * The switches of a lab that stay in our simulator: a process of its own in a namespace of their own, since ours waits for other
 * programs. It goes by the clock; socat carries each frame between a cable's end there and a datagram socket. What is said
 * between it and the lab are files, each written whole.
 */
import { spawn } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { existsSync, mkdirSync, openSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { JoinedSwitches } from '../../core/exchange/lab/joined';
import type { SwitchReading } from '../../core/exchange/readings/reading';
import type { Design, LinkEnd } from '../../core/model/document';
import type { SwitchId } from '../../core/model/ids';
import { Failed } from './run';
import type { Wire } from './wiring';

/** Microseconds in a millisecond. */
const MS = 1000;
/** How often it looks for another design, and at the longest tells how its switches are, milliseconds. */
const LOOK = 100;
/** How long one waits for it to follow, milliseconds. */
const PATIENCE = 30_000;
/** The first port of datagrams on the loopback interface of its namespace: two for each cable. */
const FIRST_PORT = 20_000;

interface Order {
  readonly turn: number;
  readonly design: Design;
  readonly joined: readonly SwitchId[];
  readonly wires: readonly Wire[];
}
interface Told {
  readonly turn: number;
  readonly readings: readonly (readonly [SwitchId, SwitchReading])[];
  readonly notes: readonly string[];
}

const within = (folder: string) => ({
  order: path.join(folder, 'order.json'),
  told: path.join(folder, 'told.json'),
  log: path.join(folder, 'log'),
});

/** Written beside it and put in its place, so that nobody reads half of it. */
function writeWhole(file: string, value: unknown): void {
  writeFileSync(`${file}.new`, JSON.stringify(value));
  renameSync(`${file}.new`, file);
}
const readWhole = <T>(file: string): T => JSON.parse(readFileSync(file, 'utf8')) as T;

const toSocat = (wire: number): number => FIRST_PORT + 2 * wire;
const fromSocat = (wire: number): number => FIRST_PORT + 2 * wire + 1;

/** The lab's side of it. */
export class Simulated {
  private turn = 0;
  private readonly folder: string;
  readonly namespace: string;
  private readonly joined: readonly SwitchId[];
  private readonly wires: readonly Wire[];

  /** `namespace`: where the cables' ends are. */
  constructor(folder: string, namespace: string, joined: readonly SwitchId[], wires: readonly Wire[]) {
    this.folder = folder;
    this.namespace = namespace;
    this.joined = joined;
    this.wires = wires;
  }

  /** Begins, once the cables' ends are there. */
  start(cli: string, design: Design): void {
    const { namespace } = this;
    mkdirSync(this.folder, { recursive: true });
    this.order(design);
    const log = openSync(within(this.folder).log, 'a');
    const start = (args: readonly string[]): void =>
      spawn('ip', ['netns', 'exec', namespace, ...args], { detached: true, stdio: ['ignore', log, log] }).unref();
    start([process.execPath, cli, 'lab', 'simulate', this.folder]);
    this.wires.forEach((wire, i) =>
      // Where it ends, it is started again.
      start([
        'sh',
        '-c',
        'while :; do socat "$1" "$2"; sleep 0.1; done',
        'sh',
        `INTERFACE:${wire.interface}`,
        `UDP4-DATAGRAM:127.0.0.1:${fromSocat(i)},bind=127.0.0.1:${toSocat(i)}`,
      ]),
    );
  }

  follow(design: Design): void {
    this.turn += 1;
    this.order(design);
  }

  /** What its switches say now, once it has followed. */
  read(): Pick<Told, 'notes'> & { readonly readings: ReadonlyMap<SwitchId, SwitchReading> } {
    const { told, log } = within(this.folder);
    for (const end = Date.now() + PATIENCE; Date.now() < end; pause(LOOK)) {
      if (!existsSync(told)) continue;
      const { turn, readings, notes } = readWhole<Told>(told);
      if (turn === this.turn && Date.now() - statSync(told).mtimeMs < 20 * LOOK)
        return { readings: new Map(readings), notes };
    }
    const said = existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').at(-1) : '';
    throw new Failed(`the simulated switches do not answer${said ? `: ${said.slice(0, 300)}` : ''}`);
  }

  private order(design: Design): void {
    const order: Order = { turn: this.turn, design, joined: this.joined, wires: this.wires };
    writeWhole(within(this.folder).order, order);
  }
}

/** This program does nothing else meanwhile. */
const pause = (ms: number): void => void Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms);

/** The other side: runs until its namespace is cleared. */
export function simulate(folder: string): void {
  const { order: orderFile, told } = within(folder);
  let order = readWhole<Order>(orderFile);
  let seen = statSync(orderFile).ino;
  const socket = order.wires.map(() => createSocket('udp4'));
  const wireAt = new Map(order.wires.map(({ end }, i) => [endKey(end), i]));
  const switches = new JoinedSwitches(order.design, new Set(order.joined), (end, octets) => {
    const wire = wireAt.get(endKey(end));
    if (wire !== undefined) socket[wire]!.send(octets, toSocat(wire), '127.0.0.1');
  });
  const start = process.hrtime.bigint();
  const now = (): number => Number((process.hrtime.bigint() - start) / 1000n);
  let due: NodeJS.Timeout | null = null;
  const goOn = (): void => {
    if (due) clearTimeout(due);
    switches.runTo(now());
    due = setTimeout(goOn, Math.min(LOOK, Math.max(0, (switches.next - now()) / MS)));
  };
  order.wires.forEach(({ end }, i) => {
    socket[i]!.on('message', (octets) => {
      switches.runTo(now());
      switches.hear(end, octets);
      goOn();
    });
    socket[i]!.bind(fromSocat(i), '127.0.0.1');
  });
  switches.boot();
  goOn();
  setInterval(() => {
    const { ino } = statSync(orderFile);
    if (ino !== seen) {
      seen = ino;
      order = readWhole<Order>(orderFile);
      switches.runTo(now());
      switches.follow(order.design);
      goOn();
    }
    const all: Told = { turn: order.turn, readings: [...switches.readings()], notes: [...switches.notes] };
    writeWhole(told, all);
  }, LOOK);
}

const endKey = ({ switch: sw, port }: LinkEnd): string => `${sw} ${port}`;
