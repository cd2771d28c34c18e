/** The tables: designs, their numbered revisions (the one log behind undo and history), and snapshots to start from. */
import { customType, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { deflateRawSync, inflateRawSync } from 'node:zlib';

/** Texts shorter than this are kept as they are. */
const WORTH_PACKING = 512;

/** A text that is kept compressed where that pays: a snapshot takes a twelfth. Rows from before hold plain text. */
const packedText = customType<{ data: string; driverData: string | Buffer }>({
  dataType: () => 'text',
  toDriver: (value) => (value.length < WORTH_PACKING ? value : deflateRawSync(value)),
  fromDriver: (value) => (typeof value === 'string' ? value : inflateRawSync(value).toString('utf8')),
});

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
    design: text('design')
      .notNull()
      .references(() => designs.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    /** The author's command: its name, and in words what it did. */
    command: text('command').notNull(),
    label: text('label').notNull(),
    /** `edit`, or the revision's relation to the one it takes back or does again; `mend` goes on after revisions that cannot be read. */
    kind: text('kind', { enum: ['edit', 'undo', 'redo', 'mend'] }).notNull(),
    target: integer('target'),
    patches: packedText('patches').notNull(),
    inverse: packedText('inverse').notNull(),
    at: integer('at').notNull(),
    /** What the page calls this write: one that comes a second time is answered, not done again. */
    write: text('write'),
  },
  (table) => [
    primaryKey({ columns: [table.design, table.number] }),
    uniqueIndex('revisions_by_write').on(table.design, table.write),
  ],
);

export const snapshots = sqliteTable(
  'snapshots',
  {
    design: text('design')
      .notNull()
      .references(() => designs.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    document: packedText('document').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.revision] }), index('snapshots_by_design').on(table.design)],
);

export const baselines = sqliteTable(
  'baselines',
  {
    design: text('design')
      .notNull()
      .references(() => designs.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.revision] })],
);

/** Templates for any design: the library. */
export const templates = sqliteTable('templates', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  end: text('end').notNull(),
  text: packedText('text').notNull(),
  updatedAt: integer('updated_at').notNull(),
});

/** Networks that are watched, one a design: as it is set, and whether it goes on. */
export const watches = sqliteTable('watches', {
  design: text('design')
    .primaryKey()
    .references(() => designs.id, { onDelete: 'cascade' }),
  settings: text('settings').notNull(),
});

/** Readings of a watched network, most as what has changed since the one before. */
export const watchPolls = sqliteTable(
  'watch_polls',
  {
    design: text('design')
      .notNull()
      .references(() => designs.id, { onDelete: 'cascade' }),
    at: integer('at').notNull(),
    whole: integer('whole', { mode: 'boolean' }).notNull(),
    data: packedText('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.design, table.at] })],
);

export const watchEvents = sqliteTable(
  'watch_events',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    design: text('design')
      .notNull()
      .references(() => designs.id, { onDelete: 'cascade' }),
    at: integer('at').notNull(),
    event: packedText('event').notNull(),
  },
  (table) => [index('watch_events_by_design').on(table.design, table.id)],
);
