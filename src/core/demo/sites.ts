/** The sites that there is a demo of, and how people call it. */
export const DEMO_NAMES = { observatory: 'the demo', valley: 'the valley demo', town: 'the town demo' } as const;
export type DemoSite = keyof typeof DEMO_NAMES;
export const DEMO_SITES = Object.keys(DEMO_NAMES) as [DemoSite, ...DemoSite[]];
