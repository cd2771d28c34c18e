/** Worksheets: what an engineer worked out by hand, held against the computed tree. */
import { z } from '../base/zod';
import { branded, id, treeId } from './common';
import type { SwitchId, TreeId } from './ids';

/** What a port may be said to be on a worksheet. */
export const WORKSHEET_ROLES = ['root', 'designated', 'alternate', 'backup', 'master', 'disabled'] as const;
export const WORKSHEET_STATES = ['forwarding', 'discarding'] as const;

/** What an engineer worked out by hand for one tree; what was left blank is left out. */
export const answersSchema = z.strictObject({
  root: branded<SwitchId>().optional(),
  switches: z
    .record(
      id,
      z.strictObject({
        rootPathCost: z.number().int().min(0).max(Number.MAX_SAFE_INTEGER).optional(),
        ports: z
          .record(
            id,
            z.strictObject({ role: z.enum(WORKSHEET_ROLES).optional(), state: z.enum(WORKSHEET_STATES).optional() }),
          )
          .default({}),
      }),
    )
    .default({}),
});
export type Answers = z.output<typeof answersSchema>;

/** A worksheet that was compared with the computed tree: the answers, and how many were right when it was. */
export const worksheetSchema = z.strictObject({
  tree: treeId.transform((value) => value as TreeId),
  /** When it was compared: UTC, ISO 8601. */
  at: z.iso.datetime(),
  right: z.number().int().min(0),
  of: z.number().int().min(1),
  answers: answersSchema,
});
export type Worksheet = z.output<typeof worksheetSchema>;
