/** Work that grows with what is sent: done at once where that is little, in a worker where it is much. */
import { BODIES, type BodyName, type NewDesign, type Refusal } from '../../contract/api';
import { glanceAt } from '../../core/analysis/glance/glance';
import type { Command } from '../../core/edit/commands';
import { editAll, type Edited } from '../../core/edit/edit';
import { problemText, problemsOf } from '../../core/model/problem';
import { readDesign } from '../../core/model/read';
import type { Design } from '../../core/model/document';
import { leanDesign } from '../../core/model/derive/write';
import { parseJson } from '../../core/base/json';
import { fail, ok, type Result } from '../../core/base/result';

/** A refusal with the HTTP status that goes with it. */
export type Refused = Refusal & { readonly status: number };

export type Task =
  /** A body as text: is it what the schema wants? */
  | { readonly kind: 'body'; readonly name: BodyName; readonly text: string }
  /** The body that asks for a new design: a document in it is read, and made ready to be stored. */
  | { readonly kind: 'new-design'; readonly text: string }
  /** A picture of a design, and how much there is to find in it. */
  | { readonly kind: 'glance'; readonly design: Design }
  /** Commands on a design. */
  | { readonly kind: 'edit'; readonly design: Design; readonly commands: readonly Command[] };

export function runTask(task: Task): Result<unknown, Refused> {
  switch (task.kind) {
    case 'body':
      return readBodyText(task.name, task.text);
    case 'new-design':
      return readWish(task.text);
    case 'glance':
      return ok(glanceAt(task.design));
    case 'edit':
      return editOf(task.design, task.commands);
  }
}

export const editOf = (design: Design, commands: readonly Command[]): Result<Edited, Refused> => {
  const edited = editAll(design, commands);
  return edited.ok
    ? edited
    : fail({ status: 422, message: 'This change does not fit the design.', details: [problemText(edited.error)] });
};

/** A document that has been read, as it is stored, with what the list of designs says of it. */
export interface ReadyDocument {
  readonly text: string;
  readonly name: string;
  readonly switches: number;
  readonly links: number;
}

/** A wish for a new design whose document, if it brings one, has been read. */
export type ReadyWish =
  Exclude<NewDesign, { do: 'import' }> | { readonly do: 'ready'; readonly document: ReadyDocument };

/** What is stored is all that comes back: a large design itself would hold up whoever waits for it. */
export const readyDocument = (design: Design): ReadyDocument => ({
  text: JSON.stringify(leanDesign(design)),
  name: design.name,
  switches: design.switches.length,
  links: design.links.length,
});

function readWish(text: string): Result<ReadyWish, Refused> {
  const wish = readBodyText('newDesign', text) as Result<NewDesign, Refused>;
  if (!wish.ok) return wish;
  if (wish.value.do !== 'import') return ok(wish.value);
  const design = checkedDesign(wish.value.document);
  return design.ok ? ok({ do: 'ready', document: readyDocument(design.value) }) : design;
}

function readBodyText(name: BodyName, text: string): Result<unknown, Refused> {
  const schema = BODIES[name];
  const json = parseJson(text);
  if (!json.ok)
    return fail({ status: 400, message: 'The request is not JSON that can be read.', details: [json.error] });
  const parsed = schema.safeParse(json.value);
  if (!parsed.success)
    return fail({
      status: 422,
      message: 'The request does not say what the server needs to know.',
      details: problemsOf(schema, json.value, parsed.error, 5).map(problemText),
    });
  return ok(parsed.data);
}

/** A document of unknown shape as a design. */
export function checkedDesign(document: unknown): Result<Design, Refused> {
  const design = readDesign(document);
  return design.ok
    ? design
    : fail({
        status: 422,
        message: 'This is not a design that Knot Path can open.',
        details: design.error.map(problemText),
      });
}
