import type { Response } from 'express';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../reference.ts';

/** How marks are drawn over a page: by outlines, so that they never change where things stand. */
const MARKS = `
html{background:#fff;color:#111;outline:none}body{min-height:100vh}
[data-link]{color:#12408f;text-decoration:underline;cursor:pointer}
[data-image]{display:inline-block;min-width:40px;min-height:20px;background:#e4e4e4;color:#555;font-size:11px}
*{cursor:crosshair!important;animation:none!important;transition:none!important}
.jt-hover{outline:2px dashed #221d16!important;outline-offset:1px}
.jt-row{outline:1px solid #1f6a4b!important;outline-offset:2px}
.jt-example{outline:3px solid #1f6a4b!important;outline-offset:2px}
.jt-first,.jt-middle,.jt-last{outline:none!important;border-left:4px solid #1f6a4b!important}
.jt-field{outline:1px dashed #1f6a4b!important;outline-offset:1px}
.jt-example .jt-field{outline-width:2px!important}
.jt-perhaps{outline:2px dotted #8a5a00!important;outline-offset:2px}
.jt-next{outline:3px solid #221d16!important;outline-offset:2px}
.jt-advert{outline:2px solid #a8321f!important;outline-offset:2px;background:repeating-linear-gradient(45deg,transparent,transparent 5px,rgba(168,50,31,.28) 5px,rgba(168,50,31,.28) 7px)!important}
.jt-tag{position:absolute;z-index:9999;font:600 10px/13px "Hanken Grotesk",sans-serif;padding:0 4px;border-radius:3px;background:#fff;color:#1f6a4b;border:1px solid #1f6a4b;transform:translate(0,-75%);pointer-events:none;white-space:nowrap}
.jt-tag-field{transform:translate(-100%,-80%)}
.jt-tag-example{background:#1f6a4b;color:#fff;font-size:12px;line-height:16px;transform:translate(-50%,-50%)}
.jt-tag-advert{background:#fff;color:#a8321f;border-color:#a8321f;transform:translate(-100%,-100%)}
.jt-tag-perhaps{color:#8a5a00;border-color:#8a5a00}
.jt-tag-next{color:#221d16;border-color:#221d16}
`;

let script: string | null = null;

/** The program of the frame, as it was built; read once. */
const frameScript = () =>
  (script ??= readFileSync(
    join(ROOT, process.env.BUILT_THREADS ?? 'dist', 'server/gather/frame-script.js'),
    'utf8',
  ).split('//# sourceMappingURL=')[0]!);

/**
 * Answers a page as it is safely shown: its words and boxes alone, in an origin of its own that may load nothing, send nothing
 * and run nothing but the program that says what was pointed at.
 */
export function sendFrame(response: Response, { styles, body }: { styles: string; body: string }): void {
  const nonce = randomBytes(16).toString('base64');
  response.set({
    'content-type': 'text/html; charset=utf-8',
    'content-security-policy': [
      "default-src 'none'",
      `script-src 'nonce-${nonce}'`,
      "style-src 'unsafe-inline'",
      "form-action 'none'",
      "base-uri 'none'",
      "frame-ancestors 'self'",
      'sandbox allow-scripts',
    ].join('; '),
    'x-frame-options': 'SAMEORIGIN',
  });
  response.send(
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Page</title><style>${styles}</style><style>${MARKS}</style></head><body>${body}<script nonce="${nonce}">${frameScript()}</script></body></html>`,
  );
}
