/** The one page that is shown without a session: a form, without script, in the workbench's colours. */
import { createHash } from 'node:crypto';

const STYLE = `
:root { color-scheme: light dark; --paper: #fbfaf6; --ink: #1f2a30; --line: #c9c5b8; --accent: #0d6b84; --wrong: #a3310b }
@media (prefers-color-scheme: dark) { :root { --paper: #15191b; --ink: #e6e3da; --line: #454b4d; --accent: #6fc1d6; --wrong: #f0946e } }
body { background: var(--paper); color: var(--ink); font: 16px/1.5 system-ui, sans-serif; display: grid; place-content: center; min-height: 90vh; margin: 0 }
form { display: grid; gap: 12px; width: 280px }
h1 { font-size: 20px; margin: 0 }
label { display: grid; gap: 4px; font-size: 14px }
input, button { font: inherit; padding: 8px 10px; border: 1px solid var(--line); border-radius: 4px; background: transparent; color: inherit }
button { border-color: var(--accent); color: var(--accent); cursor: pointer }
p { margin: 0; color: var(--wrong); font-size: 14px }`;

export const SIGN_IN_POLICY = `default-src 'none'; style-src 'sha256-${createHash('sha256').update(STYLE).digest('base64')}'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'`;

const escaped = (text: string): string => text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);

export const signInPage = (next: string, fault: string | null): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Sign in · Knot Path</title><style>${STYLE}</style></head>
<body><form method="post" action="/sign-in"><h1>Knot Path</h1><input type="hidden" name="next" value="${escaped(next)}">
<input name="username" autocomplete="username" value="knot-path" hidden>
<label>Password <input type="password" name="password" autocomplete="current-password" autofocus required></label>
${fault === null ? '' : `<p role="alert">${escaped(fault)}</p>\n`}<button>Sign in</button></form></body></html>
`;

/** Where to go after signing in: a path of this server, whatever was asked for. */
export const nextPath = (next: string | null): string =>
  next !== null && /^\/(?![/\\])/.test(next) && !/[\u0000-\u001f\\]/.test(next) ? next : '/';
