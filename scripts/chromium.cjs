/**
 * The browser that tests, pictures and the benchmark drive. The headless shell comes first: the whole of Chromium loads the
 * interface of its address bar for every page that a test opens, which costs more than most pages of ours.
 */
const { existsSync } = require('node:fs');

const known = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Debian's packages of Chromium, the better one first. */
exports.packages = ['chromium-headless-shell', 'chromium'];
/** Where it is, or would be. */
exports.chromium = () => process.env.KNOT_PATH_CHROMIUM ?? known.find((place) => existsSync(place)) ?? known[0];
