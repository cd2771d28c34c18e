/** The fonts of the map inside of files that need nothing from outside. */
import mono from '@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2';
import sans from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2';

/** Rules of a style sheet. */
export const FONT_FACES = [
  ['Atkinson Hyperlegible Next Variable', sans],
  ['Atkinson Hyperlegible Mono Variable', mono],
]
  .map(([family, url]) => `@font-face{font-family:"${family}";font-weight:200 800;src:url(${url}) format("woff2")}`)
  .join('');
