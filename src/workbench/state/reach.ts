/** Whether this page has a server behind it: the build of the page that is one file says that it has none. */
export const HAS_SERVER = process.env.NEXT_PUBLIC_KNOT_PATH_FILE !== '1';
