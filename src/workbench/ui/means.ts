/** Whether a click means one thing more, rather than this one alone. */
export const means = (event: {
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
}): 'more' | 'alone' => (event.ctrlKey || event.metaKey || event.shiftKey ? 'more' : 'alone');
