/** Designs at a glance: of the newest revision, the same beside the other requests as here, and none of what is gone. */
import { glanceAt } from '../core/analysis/glance/glance';
import { leanDesign } from '../core/model/derive/write';
import { campusOf } from '../core/testing/campus';
import { openDatabase } from './db/connect';
import * as service from './designService';
import { glanceOf } from './glances';
import { command, take } from './testing';

it('follow the newest revision', async () => {
  const db = openDatabase(':memory:');
  const id = take(service.createDesign(db, { do: 'demo' }));
  const before = take(await glanceOf(db, id));
  expect(take(await glanceOf(db, id))).toBe(before);
  take(service.editDesign(db, id, 0, [command({ do: 'remove-switch', switch: 'array-hut' })]));
  expect(take(await glanceOf(db, id)).switches).toHaveLength(before.switches.length - 1);
  take(service.deleteDesign(db, id));
  expect(await glanceOf(db, id)).toMatchObject({ ok: false, error: { status: 404 } });
});

it('of a large design are made in a worker, and are the same', async () => {
  const db = openDatabase(':memory:');
  const campus = campusOf({ switches: 60, vlans: 2 });
  const id = take(service.createDesign(db, { do: 'import', document: leanDesign(campus) }));
  expect(take(await glanceOf(db, id))).toEqual(glanceAt(campus));
});
