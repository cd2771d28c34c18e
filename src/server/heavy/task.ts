/** Work that grows with what is sent: done at once where that is little, in a worker where it is much. */
import { BODIES, type BodyName, type Refusal } from '../../contract/api';
import type { Command } from '../../core/design/commands';
import { editAll, type Edited } from '../../core/design/edit';
import { problemText, problemsOf } from '../../core/design/problem';
import { readDesign } from '../../core/design/read';
import type { Design } from '../../core/design/schema';
import { parseJson } from '../../core/json';
import { fail, ok, type Result } from '../../core/result';

/** A refusal with the HTTP status that goes with it. */
export type Refused = Refusal & { readonly status: number };

export type Task =
  /** A body as text: is it what the schema wants? A document in it is read as a design. */
  | { readonly kind: 'body'; readonly name: BodyName; readonly text: string }
  /** Commands on a design. */
  | { readonly kind: 'edit'; readonly design: Design; readonly commands: readonly Command[] };

export function runTask(task: Task): Result<unknown, Refused> {
  switch (task.kind) {
    case 'body':
      return readBodyText(task.name, task.text);
    case 'edit':
      return editOf(task.design, task.commands);
  }
}

export const editOf = (design: Design, commands: readonly Command[]): Result<Edited, Refused> => {
  const edited = editAll(design, commands);
  return edited.ok ? edited : fail({ status: 422, message: 'This change does not fit the design.', details: [problemText(edited.error)] });
};

function readBodyText(name: BodyName, text: string): Result<unknown, Refused> {
  const schema = BODIES[name];
  const json = parseJson(text);
  if (!json.ok) return fail({ status: 400, message: 'The request is not JSON that can be read.', details: [json.error] });
  const parsed = schema.safeParse(json.value);
  if (!parsed.success) return fail({ status: 422, message: 'The request does not say what the server needs to know.', details: problemsOf(schema, json.value, parsed.error, 5).map(problemText) });
  const body = parsed.data;
  if (!('do' in body) || body.do !== 'import') return ok(body);
  const design = checkedDesign(body.document);
  return design.ok ? ok({ do: 'import', document: design.value }) : design;
}

/** A document of unknown shape as a design. */
export function checkedDesign(document: unknown): Result<Design, Refused> {
  const design = readDesign(document);
  return design.ok ? design : fail({ status: 422, message: 'This is not a design that Knot Path can open.', details: design.error.map(problemText) });
}
