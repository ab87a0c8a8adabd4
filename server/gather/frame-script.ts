/**
 * Runs within the frame that a page is shown in, and is the only thing that does: it tells the window around what was pointed
 * at, and draws what that window marks. The frame has an origin of its own; nothing of ours can be read from it.
 */

interface Mark {
  nodes: number[];
  kind: 'example' | 'row' | 'advert' | 'perhaps' | 'field' | 'next';
  label: string;
}

const ROOT = document.documentElement;
const at = (node: number) => document.querySelector<HTMLElement>(`[data-node="${node}"]`);
const nodeOf = (target: EventTarget | null) => (target as Element | null)?.closest?.('[data-node]') ?? null;
const tell = (message: object) => window.parent.postMessage({ from: 'gather-page', ...message }, '*');

let hovered: Element | null = null;
let keyed: Element | null = null;

function hover(element: Element | null): void {
  hovered?.classList.remove('jt-hover');
  hovered = element;
  hovered?.classList.add('jt-hover');
}

function point(element: Element | null): void {
  if (!element) return;
  const marked = String(window.getSelection() ?? '')
    .replace(/\s+/g, ' ')
    .trim();
  const whole = (element.textContent ?? '').replace(/\s+/g, ' ').trim();
  tell({
    kind: 'point',
    node: Number(element.getAttribute('data-node')),
    part: marked !== '' && marked !== whole && whole.includes(marked) ? marked : null,
  });
}

document.addEventListener('mouseover', (event) => hover(nodeOf(event.target)));
document.addEventListener('mouseleave', () => hover(null));
/** Whether what is done in the boxes of a form is told, rather than what is pointed at. */
let stepping = false;
const isBox = (element: Element | null) =>
  element !== null && ['INPUT', 'SELECT', 'TEXTAREA', 'OPTION', 'LABEL'].includes(element.tagName);
const isButton = (element: Element | null) =>
  element?.tagName === 'BUTTON' || (element instanceof HTMLInputElement && element.type === 'submit');

document.addEventListener('click', (event) => {
  const element = nodeOf(event.target);
  if (stepping && isButton(element)) did(element!);
  if (stepping && isBox(element) && !isButton(element)) return;
  event.preventDefault();
  if (!stepping) point(element);
});
document.addEventListener('change', (event) => stepping && did(event.target as Element));

function did(element: Element): void {
  const { value = '', checked = true } = element as Partial<HTMLInputElement>;
  tell({
    kind: 'did',
    node: Number(element.getAttribute('data-node')),
    value: isButton(element) ? '' : value,
    on: checked,
  });
}
document.addEventListener('submit', (event) => event.preventDefault());

/** Keys with Ctrl that are the window's: undo, and the jump box. */
const OURS = new Set(['z', 'k']);

/** The values of a page one after the other, for those who point by keys. */
const stops = () =>
  [...document.querySelectorAll('[data-node]')].filter(
    (element) => element.children.length === 0 && (element.textContent ?? '').trim() !== '',
  );

document.addEventListener('keydown', (event) => {
  if (stepping && (isBox(event.target as Element) || isButton(event.target as Element))) return;
  const step =
    event.key === 'ArrowDown' || event.key === 'ArrowRight'
      ? 1
      : event.key === 'ArrowUp' || event.key === 'ArrowLeft'
        ? -1
        : 0;
  if (step !== 0) {
    const all = stops();
    const now = keyed ? all.indexOf(keyed) : -1;
    keyed = all[Math.min(all.length - 1, Math.max(0, now + step))] ?? null;
    hover(keyed);
    keyed?.scrollIntoView({ block: 'nearest' });
    event.preventDefault();
  } else if (event.key === 'Enter') {
    point(keyed);
    event.preventDefault();
  } else if (event.key.length === 1 || event.key === 'Escape') {
    const { key, ctrlKey, metaKey, shiftKey } = event;
    if (ctrlKey || metaKey) {
      if (!OURS.has(key.toLowerCase())) return;
      event.preventDefault();
    }
    tell({ kind: 'key', key, ctrlKey, metaKey, shiftKey });
  }
});

function draw(marks: readonly Mark[]): void {
  for (const old of document.querySelectorAll('.jt-tag')) old.remove();
  for (const element of document.querySelectorAll('[class*="jt-"]'))
    for (const name of [...element.classList])
      if (name.startsWith('jt-') && name !== 'jt-hover') element.classList.remove(name);
  for (const { nodes, kind, label } of marks)
    nodes.forEach((node, i) => {
      const element = at(node);
      if (!element) return;
      element.classList.add(`jt-${kind}`);
      if (nodes.length > 1)
        element.classList.add(i === 0 ? 'jt-first' : i === nodes.length - 1 ? 'jt-last' : 'jt-middle');
      if (i === 0 && label) tag(element, kind, label);
    });
}

function tag(element: HTMLElement, kind: string, label: string): void {
  const box = element.getBoundingClientRect();
  const own = document.createElement('span');
  own.className = `jt-tag jt-tag-${kind}`;
  own.textContent = label;
  own.style.left = `${(kind === 'field' ? box.right : box.left) + window.scrollX}px`;
  own.style.top = `${box.top + window.scrollY}px`;
  if (kind === 'advert') {
    own.style.left = `${box.right + window.scrollX}px`;
    own.style.top = `${box.bottom + window.scrollY}px`;
  }
  document.body.append(own);
}

window.addEventListener(
  'message',
  (event: MessageEvent<{ to?: string; marks?: Mark[]; show?: number; stepping?: boolean }>) => {
    if (event.source !== window.parent || event.data.to !== 'gather-page') return;
    if (event.data.marks) draw(event.data.marks);
    if (event.data.stepping !== undefined) stepping = event.data.stepping;
    if (event.data.show !== undefined) at(event.data.show)?.scrollIntoView({ block: 'center' });
  },
);

ROOT.tabIndex = 0;
tell({ kind: 'ready' });
