/** A report as one HTML file that needs nothing from outside, and prints on A4 and on letter. */
import type { TreeId } from '../../model/ids';
import { escapeXml } from '../text';
import { CHAPTERS } from './chapters';
import { reported, type Block, type ReportChapter, type Subject } from './report';

/** A chapter that is asked for, with what somebody wants to say to it. */
export interface Wanted {
  readonly chapter: string;
  readonly note: string;
}

/** Everything in its order; what is of a change only where there is one. */
export const wholeReport = (change: boolean): Wanted[] =>
  CHAPTERS.filter(({ ofChange }) => !ofChange || change).map(({ key }) => ({ chapter: key, note: '' }));

/** What draws a map under a title: the text of an SVG. */
export type Draw = (trees: readonly TreeId[], of: 'now' | 'before', title: string) => string;

/** `css`: colours and fonts; `progress` is told how far it is, 0 to 1. */
export function reportHtml(
  subject: Subject,
  wanted: readonly Wanted[],
  draw: Draw,
  css: string,
  progress: (share: number) => void = () => undefined,
): string {
  const of = reported(subject);
  const chapters = wanted.flatMap(({ chapter, note }, i) => {
    progress(i / wanted.length);
    const found = CHAPTERS.find(({ key }) => key === chapter);
    return found ? [{ found, note, blocks: found.write(of) }] : [];
  });
  const title = escapeXml(subject.design.name);
  const state = [
    ...(subject.revision === null ? [] : [`revision ${subject.revision}`]),
    ...(subject.before ? [`with what has changed since ${subject.before.label}`] : []),
    subject.at.slice(0, 10),
  ];
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; font-src data:; img-src data:">
<meta name="viewport" content="width=device-width">
<title>${title}</title>
<style>${css}${PAGE}</style>
</head>
<body>
<header>
<h1>${title}</h1>
<p>${escapeXml(state.join(', '))}</p>
</header>
<nav aria-label="Contents">
<h2>Contents</h2>
<ol>
${chapters.map(({ found: { key, name } }) => `<li><a href="#${key}">${escapeXml(name)}</a></li>`).join('\n')}
</ol>
</nav>
${chapters.map(({ found, note, blocks }) => chapterHtml(found, note, blocks, draw)).join('\n')}
</body>
</html>
`;
}

const chapterHtml = ({ key, name }: ReportChapter, note: string, blocks: readonly Block[], draw: Draw): string =>
  [
    // What is short goes on after what stands before it.
    `<section id="${key}"${isShort(blocks) ? ' class="short"' : ''}>`,
    `<h2>${escapeXml(name)}</h2>`,
    ...(note.trim() === '' ? [] : [`<p class="note">${lines(note.trim())}</p>`]),
    ...(blocks.length === 0
      ? ['<p class="none">Nothing to say here.</p>']
      : blocks.map((block) => blockHtml(block, draw))),
    '</section>',
  ].join('\n');

/** Lines of tables that a chapter on a page begun has at most. */
const SHORT = 6;
const isShort = (blocks: readonly Block[]): boolean =>
  blocks.every(({ kind }) => kind !== 'picture') &&
  blocks.reduce((sum, block) => sum + (block.kind === 'table' ? block.rows.length : 1), 0) <= SHORT;

const lines = (text: string): string => escapeXml(text).replaceAll('\n', '<br>');

function blockHtml(block: Block, draw: Draw): string {
  switch (block.kind) {
    case 'words':
      return `<p>${lines(block.text)}</p>`;
    case 'list':
      return `<ul>${block.items.map((item) => `<li>${escapeXml(item)}</li>`).join('')}</ul>`;
    case 'table':
      return `<table><thead><tr>${block.heads.map((head) => `<th scope="col">${escapeXml(head)}</th>`).join('')}</tr></thead><tbody>${block.rows
        .map((row) => `<tr>${row.map((cell) => `<td>${escapeXml(cell)}</td>`).join('')}</tr>`)
        .join('\n')}</tbody></table>`;
    case 'picture':
      return `<figure>${draw(block.trees, block.of, block.caption).replace(/^<\?xml[^>]*\?>\s*/, '')}</figure>`;
  }
}

/** Widths that suit A4 and letter alike: the margins are the page's own. */
const PAGE = `
@page{margin:16mm 15mm 18mm}
@page{@bottom-right{content:counter(page);font-size:9pt}}
*{box-sizing:border-box}
body{max-width:1000px;margin:0 auto;padding:24px;background:var(--paper);color:var(--ink);font-family:var(--sans);font-size:14px;line-height:1.45}
h1{margin:0 0 4px;font-size:28px}
h2{margin:32px 0 10px;font-size:20px}
header p,.none{color:var(--ink-soft)}
nav ol{padding-left:24px}
a{color:inherit}
.note{padding:8px 12px;border-left:3px solid var(--accent);background:var(--surface)}
table{width:100%;margin:8px 0 16px;border-collapse:collapse;font-size:12px}
th,td{padding:4px 10px 4px 0;border-bottom:1px solid var(--rule);text-align:left;vertical-align:top;overflow-wrap:break-word}
th{color:var(--ink-soft);font-weight:600}
figure{margin:12px 0 20px}
figure>svg{display:block;max-width:100%;height:auto;max-height:230mm}
@media print{
body{max-width:none;padding:0;background:none;font-size:10pt}
table{font-size:8.5pt}
thead{display:table-header-group}
tr,figure{break-inside:avoid}
h2{break-after:avoid}
section{break-before:page}
section.short{break-before:auto}
section:not(.short) h2{margin-top:0}
}
`;
