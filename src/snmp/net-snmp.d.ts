/** What we use of the library that frames and secures SNMP messages; its agent's own answers are replaced by ours. */
declare module 'net-snmp' {
  /** A name with a value, as messages hold them. */
  interface LibraryVarbind {
    readonly oid: string;
    readonly type: number;
    readonly value: unknown;
  }

  interface Pdu {
    readonly type: number;
    readonly contextName?: string;
    readonly nonRepeaters?: number;
    readonly maxRepetitions?: number;
    readonly varbinds: readonly LibraryVarbind[];
    getResponsePduForRequest(): { varbinds: LibraryVarbind[]; errorStatus: number; errorIndex: number };
  }
  interface Message {
    readonly version: number;
    readonly community?: Buffer | string;
    readonly pdu: Pdu;
  }

  interface User {
    readonly name: string;
    readonly level: number;
    readonly authProtocol?: number;
    readonly authKey?: string;
    readonly privProtocol?: number;
    readonly privKey?: string;
  }

  type Answer = (socket: unknown, message: Message, from: unknown) => void;
  interface Agent {
    getAuthorizer(): { addCommunity(community: string): void; addUser(user: User): void };
    getRequest: Answer;
    getNextRequest: Answer;
    getBulkRequest: Answer;
    setRequest: Answer;
    onProxyRequest: Answer;
    sendResponse(socket: unknown, from: unknown, message: Message, response: unknown): void;
    close(done: () => void): void;
  }

  interface Session {
    /** Set once an agent of version 3 has told of its engine (RFC 3414 4). */
    readonly msgSecurityParameters?: object;
    getBulk(
      oids: readonly string[],
      nonRepeaters: number,
      maxRepetitions: number,
      done: (error: Error | null, found: readonly (LibraryVarbind | readonly LibraryVarbind[])[]) => void,
    ): void;
    close(): void;
    on(event: 'error', heard: (error: Error) => void): void;
  }
  interface SessionOptions {
    readonly port: number;
    readonly timeout: number;
    readonly retries: number;
    readonly version: number;
    readonly context: string;
    readonly backoff: number;
  }

  class RequestFailedError extends Error {}
  const Version2c: number;
  const Version3: number;
  const ObjectType: Readonly<
    Record<
      | 'Integer'
      | 'OctetString'
      | 'OID'
      | 'Counter'
      | 'Counter64'
      | 'Gauge'
      | 'TimeTicks'
      | 'EndOfMibView'
      | 'NoSuchInstance',
      number
    >
  >;
  const PduType: Readonly<Record<'GetRequest' | 'GetNextRequest' | 'GetBulkRequest' | 'SetRequest', number>>;
  const ErrorStatus: Readonly<Record<'NotWritable', number>>;
  const SecurityLevel: Readonly<Record<'noAuthNoPriv' | 'authNoPriv' | 'authPriv', number>>;
  const AuthProtocols: Readonly<Record<'md5' | 'sha' | 'sha224' | 'sha256' | 'sha384' | 'sha512', number>>;
  const PrivProtocols: Readonly<Record<'des' | 'aes' | 'aes256b' | 'aes256r', number>>;

  function createSession(address: string, community: string, options: SessionOptions): Session;
  function createV3Session(address: string, user: User, options: SessionOptions): Session;
  function createAgent(
    options: { readonly address: string; readonly port: number; readonly engineID: string },
    heard: (error: Error | null) => void,
  ): Agent;
}
