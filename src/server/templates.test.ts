/** The library of templates: one row each, whatever was there, and no more than it holds. */
import fc from 'fast-check';
import { templateSchema, type Template } from '../core/model/template';
import { openDatabase } from './db/connect';
import { keepTemplate, listTemplates, removeTemplate } from './templates';

const template: fc.Arbitrary<Template> = fc.record({
  id: fc.stringMatching(/^[a-z][a-z0-9-]{0,5}$/),
  name: fc.constantFrom('Ports', 'Worklist', "Quote's, and `signs`"),
  end: fc.constantFrom('.txt', '.csv'),
  text: fc.string({ maxLength: 2000 }).map((text) => templateSchema.shape.text.safeParse(text).data ?? ''),
});

it('holds of each id what was kept last, until it is taken out', () => {
  const db = openDatabase(':memory:');
  fc.assert(
    fc.property(fc.array(fc.tuple(template, fc.boolean()), { maxLength: 12 }), (steps) => {
      for (const { id } of listTemplates(db)) removeTemplate(db, id);
      const known = new Map<string, Template>();
      for (const [each, goes] of steps) {
        if (goes) expect(removeTemplate(db, each.id).ok).toBe(known.delete(each.id));
        else {
          expect(keepTemplate(db, each).ok).toBe(true);
          known.set(each.id, each);
        }
      }
      const byId = (a: Template, b: Template): number => (a.id < b.id ? -1 : 1);
      expect(listTemplates(db).sort(byId)).toEqual([...known.values()].sort(byId));
    }),
  );
});

it('refuses an id that is none, and more than it holds', () => {
  const db = openDatabase(':memory:');
  const one = { id: 'a', name: 'A', end: '.txt', text: '' };
  expect(keepTemplate(db, { ...one, id: '' })).toMatchObject({ ok: false, error: { status: 400 } });
  for (let i = 0; i < 500; i += 1) keepTemplate(db, { ...one, id: `t${i}` });
  expect(keepTemplate(db, one)).toMatchObject({ ok: false, error: { status: 409 } });
  expect(keepTemplate(db, { ...one, id: 't7', name: 'B' }).ok).toBe(true);
});
