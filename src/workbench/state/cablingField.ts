/** The cabling line's element id, by which keys and buttons elsewhere find it. */
export const CABLING_FIELD = 'cabling-line';
