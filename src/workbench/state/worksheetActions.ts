/** What the store does with a worksheet: it is worked on while all that is computed is hidden. */
import { markWorksheet } from '../../core/analysis/practice/worksheet';
import { treeName } from '../../core/model/ids';
import { readDraft, saveDraft } from './worksheet';
import type { Workbench, WorkbenchActions, WorkbenchState } from './workbench';

/** `now` is the state with the design as it is, shown or not. */
export const worksheetActions = (
  get: () => Workbench,
  set: (state: Partial<WorkbenchState>) => void,
  now: () => Workbench,
): Pick<WorkbenchActions, 'openWorksheet' | 'answer' | 'compareWorksheet' | 'closeWorksheet'> => ({
  openWorksheet(tree) {
    get().closeWorksheet();
    get().look(null);
    const { design, revision, id } = get();
    get().look({
      label: `a worksheet for ${treeName(tree)}`,
      revision,
      design,
      solution: null,
      moved: null,
      hidden: true,
    });
    set({
      worksheet: { tree, answers: readDraft(id, tree), marked: null },
      lens: 'Root',
      drawer: { tab: 'worksheet', open: true },
    });
  },
  answer(answers) {
    const { worksheet, id } = get();
    if (!worksheet || worksheet.marked) return;
    saveDraft(id, worksheet.tree, answers);
    set({ worksheet: { ...worksheet, answers } });
  },
  compareWorksheet() {
    const { worksheet, id } = get();
    if (!worksheet || worksheet.marked) return;
    const { tree, answers } = worksheet;
    get().look(null);
    const marked = markWorksheet(now().design, tree, answers);
    saveDraft(id, tree, null);
    set({ worksheet: { tree, answers, marked } });
    if (get().solution?.trees.some((each) => each.id === tree)) get().showTree(tree, 'alone');
    if (marked.of > 0)
      get().act({
        do: 'keep-worksheet',
        worksheet: { tree, at: new Date().toISOString(), right: marked.right, of: marked.of, answers },
      });
  },
  closeWorksheet() {
    const { worksheet } = get();
    if (worksheet && !worksheet.marked) get().look(null);
    set({ worksheet: null });
  },
});
