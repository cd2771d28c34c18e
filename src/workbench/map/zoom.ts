/** How the whole map is fitted: a little air around everything, clear of the bars above and below. */
export const FIT = { padding: 0.02 } as const;
