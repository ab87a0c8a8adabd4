/** A text as it stands in a page. */
export const shown = (text: string | number) =>
  String(text)
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

export const page = (title: string, style: string, body: string, head = '') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${shown(title)}</title>${head}<style>${style}</style></head><body>${body}</body></html>`;

/** What the stand-in answers. */
export interface StandInAnswer {
  status: number;
  type: string;
  body: string;
  headers?: Record<string, string>;
}

export const htmlAnswer = (body: string, status = 200): StandInAnswer => ({
  status,
  type: 'text/html; charset=utf-8',
  body,
});
