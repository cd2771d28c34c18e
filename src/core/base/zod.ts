/**
 * The one door to zod. `jitless` must be set before the first schema is built: otherwise zod probes
 * `eval`, which the workbench's content security policy reports as a violation.
 */
import { config } from 'zod';

config({ jitless: true });

export * as z from './zodParts';
