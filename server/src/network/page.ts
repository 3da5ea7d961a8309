/** The frame of the few pages that the server writes itself, for devices that have no app of the bar: the trust page, a guest's cup. */

export const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** @param script the address of its one script, where it has any */
export const page = (title: string, body: string, script?: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="referrer" content="no-referrer"><meta name="robots" content="noindex"><title>${escaped(title)}</title>
<style>${STYLE}</style>${script === undefined ? '' : `<script src="${script}" defer></script>`}</head><body><main>${body}</main></body></html>
`;

/** The app's colours of day, evening and strong sun (`app/src/ui/theme.ts`); the reader's own setting chooses. */
const STYLE = `
:root{--page:#EEF2F1;--card:#FBFCFB;--ink:#12212B;--ink2:#4A5C66;--rim:#B9C5C6;--go:#12212B;--onGo:#fff;color-scheme:light dark}
@media (prefers-color-scheme:dark){:root{--page:#0D171C;--card:#142229;--ink:#EDF3F3;--ink2:#A2B4BB;--rim:#2E424B;--go:#EDF3F3;--onGo:#0D171C}}
@media (prefers-contrast:more){:root{--page:#fff;--card:#fff;--ink:#000;--ink2:#000;--rim:#000;--go:#000;--onGo:#fff}}
*{box-sizing:border-box}body{margin:0;background:var(--page);color:var(--ink);font:18px/1.5 system-ui,sans-serif}
main{max-width:640px;margin:0 auto;padding:20px 16px 48px}h1{font-size:28px;line-height:1.2;margin:12px 0}h2{font-size:20px;margin:0 0 8px}
section,details{background:var(--card);border:1px solid var(--rim);border-radius:6px;padding:16px;margin:14px 0}
summary{font-weight:700;font-size:20px;cursor:pointer;min-height:44px;display:flex;align-items:center}
ol{list-style:none;padding:0;margin:0}li{display:flex;gap:14px;align-items:center;padding:8px 0}li svg{flex:none}
.button{display:inline-block;min-height:48px;padding:10px 20px;border-radius:6px;background:var(--go);color:var(--onGo);text-decoration:none;font-weight:700}
.code{font:600 18px/1.7 ui-monospace,monospace;letter-spacing:.02em;overflow-wrap:anywhere}.qr{width:220px;background:#fff;padding:8px;border-radius:6px}.qr svg{display:block;width:100%;height:auto}
a:focus-visible,summary:focus-visible{outline:3px solid var(--go);outline-offset:2px}`;
