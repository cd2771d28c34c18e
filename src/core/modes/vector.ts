/**
 * Priority vectors and times as the protocols carry them (IEEE 802.1Q-2018 13.9 to 13.11 and 13.26.24). A bridge identifier
 * is one number here that compares as the identifier does; `BridgeKeys` turns it back into priority and address.
 */

/**
 * Root, external cost, regional root, internal cost, designated bridge and port, compared in this order. An RST BPDU's
 * designated bridge is its own regional root, at internal cost 0; an instance's vector has root and external cost 0.
 */
export interface Vector {
  readonly root: number;
  readonly externalCost: number;
  readonly regionalRoot: number;
  readonly internalCost: number;
  readonly bridge: number;
  /** The sixteen bits of the port identifier. */
  readonly port: number;
}

/** What BPDUs hold ages in: so many are a second (9.2.8, 14.1). */
export const AGE_UNITS = 256;

/** A message age as rapid bridges take it: to the nearest second (13.29 updtRcvdInfoWhile and updtRolesTree). */
export const wholeSeconds = (messageAge: number): number => Math.round(messageAge);

/** Seconds, whole ones but for the age that classic bridges give a message; `remainingHops` counts inside a region. */
export interface Times {
  readonly messageAge: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  readonly hello: number;
  readonly remainingHops: number;
}

/**
 * A bridge identifier is its priority times this, and the place of its address among all addresses: more than a network may
 * have switches, and so few that the whole stays a small integer.
 */
export const ADDRESSES = 2 ** 14;

/** Whether two bridge identifiers are of one bridge, whatever its priority. */
export const sameAddress = (a: number, b: number): boolean => a === b || (a - b) % ADDRESSES === 0;

/** A vector; all are made here, so that all are objects of one shape. */
export const vectorOf = (
  root: number,
  externalCost: number,
  regionalRoot: number,
  internalCost: number,
  bridge: number,
  port: number,
): Vector => ({ root, externalCost, regionalRoot, internalCost, bridge, port });

/** Times; all are made here, as vectors are. */
export const timesOf = (
  messageAge: number,
  maxAge: number,
  forwardDelay: number,
  hello: number,
  remainingHops: number,
): Times => ({ messageAge, maxAge, forwardDelay, hello, remainingHops });

/** Negative where `a` is better, 0 where they are the same. */
export function compareVectors(a: Vector, b: Vector): number {
  if (a === b) return 0;
  return (
    a.root - b.root ||
    a.externalCost - b.externalCost ||
    a.regionalRoot - b.regionalRoot ||
    a.internalCost - b.internalCost ||
    a.bridge - b.bridge ||
    a.port - b.port
  );
}

export const sameTimes = (a: Times, b: Times): boolean =>
  a === b ||
  (a.messageAge === b.messageAge &&
    a.maxAge === b.maxAge &&
    a.forwardDelay === b.forwardDelay &&
    a.hello === b.hello &&
    a.remainingHops === b.remainingHops);

/** Whether two vectors come from one port of one bridge, whatever priorities it has been given (13.10, 13.11). */
export const sameSender = (a: Vector, b: Vector): boolean =>
  ((a.port ^ b.port) & 0xfff) === 0 && sameAddress(a.bridge, b.bridge);

/** The vector of a bridge that takes itself for the root, seen at one of its ports. */
export const ownVector = (bridge: number, port: number): Vector => vectorOf(bridge, 0, bridge, 0, bridge, port);
