/** The sites that there is a demo of. */
export const DEMO_SITES = ['observatory', 'valley'] as const;
export type DemoSite = (typeof DEMO_SITES)[number];
