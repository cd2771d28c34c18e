/** Text that was typed and not taken yet: asked about before the page goes. */

/** Fields that may hold text for long carry `data-draft` while they do. */
const DRAFT = '[data-draft]';

const isField = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && ['text', 'number', 'search', ''].includes(target.type));

let entered: { readonly field: HTMLInputElement | HTMLTextAreaElement; readonly value: string } | null = null;

/** Remembers what each field held when it was entered; gives how to stop. */
export function watchFields(document: Document): () => void {
  const enter = ({ target }: FocusEvent): void => {
    entered = isField(target) ? { field: target, value: target.value } : null;
  };
  const key = ({ key: name, target }: KeyboardEvent): void => {
    // Enter takes what was typed: what the field holds then is no draft any more.
    if (name === 'Enter' && entered?.field === target)
      setTimeout(() => entered?.field === target && (entered = { field: entered.field, value: entered.field.value }));
  };
  document.addEventListener('focusin', enter);
  document.addEventListener('keydown', key);
  return () => {
    document.removeEventListener('focusin', enter);
    document.removeEventListener('keydown', key);
  };
}

/** Whether some field holds such text. */
export function holdsText(): boolean {
  const now = document.activeElement;
  return (
    document.querySelector(DRAFT) !== null ||
    (isField(now) && entered?.field === now && entered.value !== now.value && now.dataset.filter === undefined)
  );
}
