/** Saves a picture of the map, as it is shown or the whole of it, as SVG or PNG. */
import { fileStemOf } from '../../../core/model/derive/write';
import { saveFile } from '../../ui/saveFile';
import { mapGroups, UNGROUPED } from '../../state/folding';
import type { Workbench } from '../../state/workbench';
import type { PictureOf } from './pictureOf';

export const PARTS = ['shown', 'whole'] as const;
export const KINDS = ['svg', 'png'] as const;
export type Part = (typeof PARTS)[number];
export type Kind = (typeof KINDS)[number];

export const pictureName = (part: Part, kind: Kind): string =>
  `Picture of ${part === 'shown' ? 'the map as shown' : 'the whole map'} (${kind.toUpperCase()})`;

/** The widest whole map, pixels, and how much finer a PNG is than the screen. */
const WIDEST = 3600;
const FINER = 2;

/** Gives null, or why there is no picture. */
export async function savePicture(state: Workbench, part: Part, kind: Kind): Promise<string | null> {
  const drawn = state.controls?.drawn();
  if (!drawn) return 'There is no map to make a picture of.';
  const plain = state.focus !== null || state.layout === 'hung';
  const [{ pictureText }, css] = await Promise.all([import('./svgText'), cssOfPage()]);
  const name = state.design.name.slice(0, 120);
  const of: PictureOf = {
    design: drawn.design,
    solution: state.solution,
    trees: state.lens === 'Cable' ? [] : state.shownTrees,
    ...(plain ? UNGROUPED : mapGroups(drawn.design, state.folded)),
    places: drawn.places,
    title: drawn.instant ? `${name}, ${drawn.instant.when}` : name,
    ...(drawn.instant ? { instant: drawn.instant } : {}),
    bundling: state.lens === 'Bundle',
    css,
    ...(part === 'shown'
      ? { scale: drawn.scale, view: drawn.view }
      : { scale: Math.min(1, WIDEST / Math.max(1, drawn.width)) }),
  };
  const text = pictureText(of);
  const file = `${fileStemOf(state.design)}.${kind}`;
  if (kind === 'svg') saveFile(file, 'image/svg+xml', text);
  else {
    const octets = await asPng(text);
    if (!octets) return 'This browser cannot draw a picture of that size.';
    saveFile(file, 'image/png', octets);
  }
  return null;
}

async function asPng(svg: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [image.naturalWidth * FINER, image.naturalHeight * FINER];
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    return blob && new Uint8Array(await blob.arrayBuffer());
  } catch {
    return null;
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** Colours and fonts of this page, as a picture of its own needs them, or, with `:root`, a page. */
export async function cssOfPage(
  at: 'svg' | ':root' = 'svg',
  dark = document.documentElement.classList.contains('dark'),
): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => {
    try {
      return [...sheet.cssRules];
    } catch {
      return []; // another's sheet: none of ours
    }
  });
  const tokens = rules.flatMap((rule) =>
    rule instanceof CSSStyleRule && (rule.selectorText === ':root' || (dark && rule.selectorText === '.dark'))
      ? [
          [...rule.style]
            .filter((key) => key.startsWith('--'))
            .map((key) => `${key}:${rule.style.getPropertyValue(key)}`),
        ]
      : [],
  );
  const faces = rules.filter((rule): rule is CSSFontFaceRule => rule instanceof CSSFontFaceRule && isLatin(rule));
  const fonts = await Promise.all(faces.map(embedded));
  return `${fonts.join('')}${at}{${tokens.flat().join(';')}}`;
}

/** The face that has plain letters, of each of our fonts. */
const isLatin = ({ style }: CSSFontFaceRule): boolean =>
  style.getPropertyValue('font-family').includes('Atkinson') &&
  style.getPropertyValue('unicode-range').toUpperCase().startsWith('U+0-FF');

async function embedded({ style, parentStyleSheet }: CSSFontFaceRule): Promise<string> {
  const [, source] = /url\(["']?([^"')]+)["']?\)/.exec(style.getPropertyValue('src')) ?? [];
  if (source === undefined) return '';
  const answer = await fetch(new URL(source, parentStyleSheet?.href ?? document.baseURI));
  const octets = new Uint8Array(await answer.arrayBuffer());
  let binary = '';
  for (let i = 0; i < octets.length; i += 8192) binary += String.fromCharCode(...octets.subarray(i, i + 8192));
  return fontFace(style.getPropertyValue('font-family'), `data:font/woff2;base64,${btoa(binary)}`);
}

const fontFace = (family: string, url: string): string =>
  `@font-face{font-family:${family};font-weight:200 800;src:url(${url}) format("woff2")}`;
