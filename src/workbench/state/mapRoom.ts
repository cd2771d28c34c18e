/** The map's element id, by which keys elsewhere give it the keyboard's focus. */
export const MAP_ROOM = 'map-room';

/** Arrow keys then travel from what is selected. */
export const focusMap = (): void => document.getElementById(MAP_ROOM)?.focus({ preventScroll: true });
