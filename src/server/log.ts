/** The server's log: JSON lines on standard output. */
import pino from 'pino';

export const log = pino({
  level: process.env.KNOT_PATH_LOG ?? 'warn',
  serializers: { error: pino.stdSerializers.err },
});
