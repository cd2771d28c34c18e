/** Groups of switches that stand together: a site, a building, a floor, a room, a rack; groups may lie within groups. */
import { z } from '../base/zod';
import { branded, nameField } from './common';
import { field } from './field';
import type { GroupId } from './ids';

export const GROUP_KINDS = ['site', 'building', 'floor', 'room', 'rack'] as const;
export type GroupKind = (typeof GROUP_KINDS)[number];

/** How a cabling line says the group that something is in. */
export const inGroup = {
  kind: 'value',
  word: 'in',
  detail: 'group that it is in: in north',
  what: 'the name of a group',
  offer: 'group',
} as const;

export const groupSchema = z.strictObject({
  id: branded<GroupId>(),
  name: nameField,
  kind: field(z.enum(GROUP_KINDS).optional(), {
    label: 'kind of group',
    reads: 'nothing',
    absent: 'any',
    line: { kind: 'words', words: GROUP_KINDS.map((kind) => [kind, kind] as const) },
  }),
  /** The group around it. */
  within: field(branded<GroupId>().optional(), {
    label: 'within',
    reads: 'nothing',
    absent: 'none',
    text: (group, names) => names.group(group),
    line: inGroup,
  }),
});
export type Group = z.output<typeof groupSchema>;
