/** The tables: designs, their numbered revisions (the one log behind undo and history), and snapshots to start from. */
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

export const designs = sqliteTable('designs', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** Number of the newest revision. */
  revision: integer('revision').notNull(),
  switches: integer('switches').notNull(),
  links: integer('links').notNull(),
  createdAt: integer('created_at').notNull(),
  updatedAt: integer('updated_at').notNull(),
  /** Set while a design is deleted but can still be brought back. */
  deletedAt: integer('deleted_at'),
});

export const revisions = sqliteTable(
  'revisions',
  {
    design: text('design').notNull().references(() => designs.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    /** The author's command: its name, and in words what it did. */
    command: text('command').notNull(),
    label: text('label').notNull(),
    /** `edit`, or the revision's relation to the one it takes back or does again. */
    kind: text('kind', { enum: ['edit', 'undo', 'redo'] }).notNull(),
    target: integer('target'),
    patches: text('patches').notNull(),
    inverse: text('inverse').notNull(),
    at: integer('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.number] })],
);

export const snapshots = sqliteTable(
  'snapshots',
  {
    design: text('design').notNull().references(() => designs.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    document: text('document').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.revision] }), index('snapshots_by_design').on(table.design)],
);

export const baselines = sqliteTable(
  'baselines',
  {
    design: text('design').notNull().references(() => designs.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.revision] })],
);
