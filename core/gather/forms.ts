import { fold } from '../text/fold.ts';
import { wholeAddress } from './follow.ts';
import { elementsIn, squeezed, textOf, type Page, type PageElement } from './page.ts';
import { withoutMarks } from './shape.ts';

/** One box of a form, as a reader sees it. */
export interface Control {
  /** Number of its element. */
  node: number;
  kind: 'text' | 'choice' | 'tick' | 'fixed';
  name: string;
  /** The words beside it. */
  label: string;
  /** What it holds as the page comes; of a tick, what it sends where it is set. */
  value: string;
  /** Whether a tick is set as the page comes. */
  on: boolean;
  options: { value: string; label: string }[];
}

/** A form of a page, and the words of its button. */
export interface PageForm {
  method: 'get' | 'post';
  action: string;
  controls: Control[];
  buttons: { node: number; label: string; name: string | null; value: string }[];
}

/** What one does on a page before the list stands there. Texts may hold {word} and {place}. */
export type Step =
  | { do: 'type'; into: string; text: string }
  | { do: 'choose'; in: string; option: string }
  | { do: 'tick'; box: string; on: boolean }
  | { do: 'press'; button: string }
  | { do: 'wait'; seconds: number };

/** A request that a page asks for. */
export interface PageRequest {
  method: 'get' | 'post';
  url: string;
  /** Of a post: the values, written as in an address. */
  body: string | null;
}

/** What of a step cannot be done on the page as it is now. */
export class StepTrouble extends Error {
  readonly step: number;
  constructor(step: number, message: string) {
    super(message);
    this.step = step;
  }
}

/** The forms of a page. */
export function formsOf(page: Page): PageForm[] {
  const labels = labelsOf(page);
  return [...elementsIn(page, page.root)]
    .filter(({ tag }) => tag === 'form')
    .map((form) => formOf(page, form, labels));
}

function labelsOf(page: Page): Map<string, string> {
  const labels = new Map<string, string>();
  for (const element of elementsIn(page, page.root))
    if (element.tag === 'label' && element.attributes.for)
      labels.set(element.attributes.for, squeezed(textOf(element)));
  return labels;
}

function formOf(page: Page, form: PageElement, labels: ReadonlyMap<string, string>): PageForm {
  const found: PageForm = {
    method: (form.attributes.method ?? '').toLowerCase() === 'post' ? 'post' : 'get',
    action: form.attributes.action ?? '',
    controls: [],
    buttons: [],
  };
  for (const element of elementsIn(page, form)) {
    const { name = '', value = '', type = 'text', placeholder = '' } = element.attributes;
    const label =
      labels.get(element.attributes.id ?? '') ??
      (labelAround(element, form) || element.attributes['aria-label'] || placeholder || name);
    const one = {
      node: element.id,
      name,
      label,
      value,
      on: element.attributes.checked !== undefined,
      options: [],
    };
    if (element.tag === 'button' || (element.tag === 'input' && ['submit', 'image'].includes(type)))
      found.buttons.push({
        node: element.id,
        label: squeezed(textOf(element)) || value || 'Submit',
        name: name || null,
        value,
      });
    else if (name === '') continue;
    else if (element.tag === 'select') {
      const options = [...elementsIn(page, element)]
        .filter(({ tag }) => tag === 'option')
        .map((option) => {
          const words = squeezed(textOf(option));
          return {
            value: option.attributes.value ?? words,
            label: words,
            selected: option.attributes.selected !== undefined,
          };
        });
      const chosen = options.find(({ selected }) => selected) ?? options[0];
      found.controls.push({
        ...one,
        kind: 'choice',
        value: chosen?.value ?? '',
        options: options.map(({ selected: _, ...option }) => option),
      });
    } else if (element.tag === 'textarea')
      found.controls.push({ ...one, kind: 'text', value: textOf(element) });
    else if (element.tag === 'input')
      found.controls.push({
        ...one,
        kind: type === 'hidden' ? 'fixed' : type === 'checkbox' || type === 'radio' ? 'tick' : 'text',
        value: value || (type === 'checkbox' ? 'on' : ''),
      });
  }
  return found;
}

function labelAround(element: PageElement, form: PageElement): string {
  for (let at = element.parent; at !== null && at !== form; at = at.parent)
    if (at.tag === 'label')
      return squeezed(
        at.children
          .filter((child) => child.kind === 'text' || !['select', 'input', 'textarea'].includes(child.tag))
          .map(textOf)
          .join(' '),
      );
  return '';
}

const same = (a: string, b: string) => fold(withoutMarks(a)) === fold(withoutMarks(b));

/** Puts the word and the place of a search where a step names them. */
export const filled = (text: string, search: { word: string; place: string }) =>
  text.replaceAll('{word}', search.word).replaceAll('{place}', search.place);

/**
 * The request that steps on a page lead to; the steps after the first press are left for the page that answers it.
 * @throws StepTrouble naming the step that the page has no box or button for, or a form that goes to another host
 */
export function requestOf(
  page: Page,
  url: string,
  steps: readonly Step[],
  search: { word: string; place: string },
): { request: PageRequest; rest: Step[] } | null {
  const forms = formsOf(page);
  const held = new Map<Control, { value: string; on: boolean }>();
  for (const [i, step] of steps.entries()) {
    if (step.do === 'wait') continue;
    if (step.do === 'press') return { request: pressed(i, step.button), rest: steps.slice(i + 1) };
    const [kind, label] =
      step.do === 'type'
        ? (['text', step.into] as const)
        : step.do === 'choose'
          ? (['choice', step.in] as const)
          : (['tick', step.box] as const);
    const control = forms
      .flatMap(({ controls }) => controls)
      .find((one) => one.kind === kind && same(one.label, label));
    if (!control) throw new StepTrouble(i, `The page has no ${KIND_WORDS[kind]} called “${label}”.`);
    held.set(control, valueOf(i, step, control));
  }
  return null;

  function valueOf(i: number, step: Step, control: Control): { value: string; on: boolean } {
    if (step.do === 'type') return { value: filled(step.text, search), on: true };
    if (step.do === 'tick') return { value: control.value, on: step.on };
    const wanted = filled((step as Extract<Step, { do: 'choose' }>).option, search);
    const option = control.options.find(({ label, value }) => same(label, wanted) || value === wanted);
    if (!option) throw new StepTrouble(i, `“${control.label}” has no choice “${wanted}”.`);
    return { value: option.value, on: true };
  }

  function pressed(i: number, button: string): PageRequest {
    const form = forms.find(({ buttons }) => buttons.some(({ label }) => same(label, button)));
    if (!form) throw new StepTrouble(i, `The page has no button called “${button}”.`);
    const own = form.buttons.find(({ label }) => same(label, button))!;
    const asked = new URLSearchParams();
    for (const control of form.controls) {
      const { value, on } = held.get(control) ?? control;
      if (control.kind !== 'tick' || on) asked.append(control.name, value);
    }
    if (own.name !== null) asked.append(own.name, own.value);
    const action = wholeAddress(form.action || url, url);
    if (action === null || new URL(action).host !== new URL(url).host)
      throw new StepTrouble(
        i,
        `The form of “${button}” goes to another host than its page; what is typed is sent to the page's own host alone.`,
      );
    if (form.method === 'post') return { method: 'post', url: action, body: asked.toString() };
    const target = new URL(action);
    target.search = asked.toString();
    return { method: 'get', url: target.href, body: null };
  }
}

const KIND_WORDS = { text: 'box', choice: 'choice', tick: 'tick box' } as const;

/** Something that was done on a page as it is shown: a box, a choice or a tick that was changed, or a button that was pressed. */
export interface Done {
  node: number;
  value: string;
  on: boolean;
}

/**
 * The steps with what was done as one more: a box that is filled again is filled otherwise, and what is done before a button was
 * pressed stands before it. What was typed is the word or the place of the search where it is just that.
 */
export function recorded(
  steps: readonly Step[],
  forms: readonly PageForm[],
  { node, value, on }: Done,
  search: { word: string; place: string },
): Step[] {
  const button = forms.flatMap(({ buttons }) => buttons).find((one) => one.node === node);
  if (button) {
    const last = steps.at(-1);
    const again = last?.do === 'press' && last.button === button.label;
    return again ? [...steps] : [...steps, { do: 'press', button: button.label }];
  }
  const control = forms.flatMap(({ controls }) => controls).find((one) => one.node === node);
  if (!control) return [...steps];
  const text =
    value !== '' && value === search.word
      ? '{word}'
      : value !== '' && value === search.place
        ? '{place}'
        : value;
  const step: Step =
    control.kind === 'choice'
      ? {
          do: 'choose',
          in: control.label,
          option: control.options.find((one) => one.value === value)?.label ?? value,
        }
      : control.kind === 'tick'
        ? { do: 'tick', box: control.label, on }
        : { do: 'type', into: control.label, text };
  const others = steps.filter((one) => nameOf(one) !== nameOf(step) || one.do !== step.do);
  const press = others.findIndex((one) => one.do === 'press');
  return press < 0 ? [...others, step] : [...others.slice(0, press), step, ...others.slice(press)];
}

const nameOf = (step: Step) =>
  step.do === 'type' ? step.into : step.do === 'choose' ? step.in : step.do === 'tick' ? step.box : '';

/** A step in words, as it is shown and edited. */
export function stepWords(step: Step): string {
  switch (step.do) {
    case 'type':
      return `type “${step.text}” into “${step.into}”`;
    case 'choose':
      return `choose “${step.option}” in “${step.in}”`;
    case 'tick':
      return `${step.on ? 'tick' : 'untick'} “${step.box}”`;
    case 'press':
      return `press “${step.button}”`;
    case 'wait':
      return `wait ${step.seconds} s`;
  }
}
