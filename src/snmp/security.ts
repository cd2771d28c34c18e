/** A user of SNMP version 3, as the library takes one (RFC 3414, RFC 7860). */
import snmp, { type User } from 'net-snmp';
import type { Credential } from './credentials';

export function security(credential: Extract<Credential, { version: '3' }>): User {
  const { user: name, auth, priv } = credential;
  const level = !auth ? 'noAuthNoPriv' : priv ? 'authPriv' : 'authNoPriv';
  return {
    name,
    level: snmp.SecurityLevel[level],
    ...(auth ? { authProtocol: snmp.AuthProtocols[auth.protocol], authKey: auth.key } : {}),
    ...(auth && priv ? { privProtocol: snmp.PrivProtocols[priv.protocol], privKey: priv.key } : {}),
  };
}
