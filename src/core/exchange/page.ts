/** A design as one HTML file in which it can be looked at: the workbench without a server. */
import { escapeXml } from './text';
import { writeDesign } from '../model/derive/write';
import type { Design } from '../model/document';

/** What `scripts/build-page.mjs` makes of the workbench. */
export interface PageParts {
  readonly script: string;
  readonly style: string;
}

/** Nothing is asked of anybody: no host is allowed. Workers start from texts in the page. */
const POLICY = [
  "default-src 'none'",
  "script-src 'unsafe-inline' blob:",
  'worker-src blob:',
  "style-src 'unsafe-inline'",
  'img-src data: blob:',
  'font-src data:',
].join('; ');

/** `revision`: the number of its revision; null where it is not known. */
export function pageHtml(design: Design, revision: number | null, { script, style }: PageParts): string {
  // In a script nothing is escaped as text is: no sign may end it.
  const document = writeDesign(design).replaceAll('<', '\\u003c');
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="content-security-policy" content="${escapeXml(POLICY)}">
<title>${escapeXml(design.name)} · Knot Path</title>
<style>${style.replaceAll('</style', '<\\/style')}</style>
</head>
<body>
<div id="room"></div>
<script type="application/json" id="design" data-revision="${revision ?? 0}">${document}</script>
<script>${script.replaceAll('</script', '<\\/script')}</script>
</body>
</html>
`;
}
