import { z } from '../base/zod';
import { titleSchema } from './common';
import { macAddress } from './legal';

/** A neighbour as a switch itself reported it: names as they were seen, which need not be in the design. */
export const observedSchema = z.strictObject({
  /** The switch that reported it, and its port: ids where the design has them. */
  switch: titleSchema,
  port: titleSchema,
  device: titleSchema,
  devicePort: titleSchema.optional(),
  mac: macAddress.optional(),
  kind: z.enum(['switch', 'host']).optional(),
});
export type Observed = z.output<typeof observedSchema>;
