import { useState } from 'react';
import type { GatherSpecBody, StepBody } from '../../contract/gather.ts';
import type { LookAnswer } from '../../contract/gather-views.ts';
import { GATHER_FIELDS } from '../../core/gather/fields.ts';
import { stepWords, type Step } from '../../core/gather/forms.ts';
import { MOST_SEARCHES, readTerms, searchesOf, writeTerms } from '../../core/gather/words-places.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { TermsField } from './TermsField.tsx';

/** Words, places, and what is done before a list stands there: all of it can be changed at any time. */
export function WordsPlaces({
  spec,
  forms,
  onSave,
  onClose,
}: {
  spec: GatherSpecBody;
  /** The forms of the page that is shown, whose boxes may be filled. */
  forms: LookAnswer['forms'];
  onSave(spec: GatherSpecBody): Promise<unknown>;
  onClose(): void;
}) {
  const format = useFormat();
  const [words, setWords] = useState(writeTerms(spec.words));
  const [places, setPlaces] = useState(writeTerms(spec.places));
  const [start, setStart] = useState(spec.start);
  const [steps, setSteps] = useState<StepBody[]>(spec.steps);
  const [pause, setPause] = useState(String(spec.pause));
  const [pages, setPages] = useState(String(spec.pages));
  const [country, setCountry] = useState(spec.country ?? '');
  const [needs, setNeeds] = useState<readonly string[]>(spec.needs);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const searches = searchesOf(readTerms(words), readTerms(places)).length;
  const save = () =>
    onSave({
      ...spec,
      ...{ start: start.trim(), steps, needs: [...needs], country: country || null },
      ...{ words: readTerms(words), places: readTerms(places) },
      ...{ pause: Number(pause), pages: Number(pages) },
    }).then(onClose, (error: Error) => setTrouble(error));
  return (
    <Dialog title="Words and places" open onClose={onClose} width={720}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) event.currentTarget.requestSubmit();
        }}
      >
        <label>
          <span className="block text-[13px] text-soft">Where each search begins</span>
          <input
            className="field figure w-full"
            value={start}
            onChange={(event) => setStart(event.target.value)}
          />
        </label>
        <div className="grid grid-cols-2 gap-4">
          <TermsField label="Words" placeholder="joinery" value={words} onChange={setWords} />
          <TermsField label="Places" placeholder="Brno" value={places} onChange={setPlaces} />
        </div>
        <p className="-mt-2 text-[13px] text-soft">
          <span className={searches > MOST_SEARCHES ? 'figure text-cut' : 'figure text-ink'}>
            {format.number(searches)}
          </span>{' '}
          {searches === 1 ? 'search' : 'searches'}
          {searches > MOST_SEARCHES && `, more than ${format.number(MOST_SEARCHES)}`}
        </p>
        <Steps steps={steps} forms={forms} onSteps={setSteps} />
        <div className="flex flex-wrap gap-4">
          <label className="text-[13px] text-soft">
            Pause between pages, seconds
            <input
              className="field figure block w-24"
              inputMode="decimal"
              value={pause}
              onChange={(event) => setPause(event.target.value)}
            />
          </label>
          <label className="text-[13px] text-soft">
            Pages of a search at most
            <input
              className="field figure block w-28"
              inputMode="numeric"
              value={pages}
              onChange={(event) => setPages(event.target.value)}
            />
          </label>
          <label className="text-[13px] text-soft">
            Country of all, where pages do not say it
            <input
              className="field figure block w-24"
              placeholder="CZ"
              maxLength={2}
              value={country}
              onChange={(event) => setCountry(event.target.value.toUpperCase())}
            />
          </label>
          <fieldset className="text-[13px]">
            <legend className="text-soft">Refuse rows without, beside the name</legend>
            <div className="flex flex-wrap gap-x-3">
              {['street', 'postcode', 'town', 'phone', 'mail', 'web'].map((field) => (
                <label key={field} className="flex items-center gap-1.5 py-1">
                  <input
                    type="checkbox"
                    checked={needs.includes(field)}
                    onChange={(event) =>
                      setNeeds(
                        event.target.checked ? [...needs, field] : needs.filter((one) => one !== field),
                      )
                    }
                  />
                  {GATHER_FIELDS[field]!.toLowerCase()}
                </label>
              ))}
            </div>
          </fieldset>
        </div>
        <Trouble error={trouble} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" look="ink">
            Keep it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** The steps before the list, in words; each can be taken out, moved, or added from the boxes of the page. */
function Steps({
  steps,
  forms,
  onSteps,
}: {
  steps: readonly StepBody[];
  forms: LookAnswer['forms'];
  onSteps(steps: StepBody[]): void;
}) {
  const controls = forms.flatMap((form) => form.controls).filter(({ kind }) => kind !== 'fixed');
  const buttons = forms.flatMap((form) => form.buttons);
  const change = (at: number, step: StepBody) => onSteps(steps.map((one, i) => (i === at ? step : one)));
  const move = (at: number, by: number) => {
    const next = [...steps];
    const [one] = next.splice(at, 1);
    next.splice(at + by, 0, one!);
    onSteps(next);
  };
  const add = (key: string) => {
    const [kind, i] = key.split(' ');
    if (kind === 'wait') onSteps([...steps, { do: 'wait', seconds: 1 }]);
    else if (kind === 'press') onSteps([...steps, { do: 'press', button: buttons[Number(i)]!.label }]);
    else {
      const control = controls[Number(i)]!;
      const step: StepBody =
        control.kind === 'text'
          ? { do: 'type', into: control.label, text: '' }
          : control.kind === 'choice'
            ? { do: 'choose', in: control.label, option: control.options[0]?.label ?? '' }
            : { do: 'tick', box: control.label, on: true };
      const press = steps.findIndex((one) => one.do === 'press');
      onSteps(press < 0 ? [...steps, step] : [...steps.slice(0, press), step, ...steps.slice(press)]);
    }
  };
  return (
    <div>
      <p className="text-[13px] text-soft">Before the list stands there</p>
      <ol className="mt-1" aria-label="Steps">
        {steps.map((step, i) => (
          <li key={i} className="flex items-center gap-2 border-b border-rule py-1">
            <span className="flex-1">
              <StepEditor step={step} forms={forms} onStep={(next) => change(i, next)} />
            </span>
            <Button
              look="quiet"
              disabled={i === 0}
              onClick={() => move(i, -1)}
              aria-label={`Step ${i + 1} earlier`}
            >
              ↑
            </Button>
            <Button
              look="quiet"
              disabled={i === steps.length - 1}
              onClick={() => move(i, 1)}
              aria-label={`Step ${i + 1} later`}
            >
              ↓
            </Button>
            <Button
              look="quiet"
              onClick={() => onSteps(steps.filter((_, at) => at !== i))}
              aria-label={`Leave out: ${stepWords(step as Step)}`}
            >
              ×
            </Button>
          </li>
        ))}
        {steps.length === 0 && <li className="py-1 text-soft">Nothing: the list stands at that address.</li>}
      </ol>
      <select
        className="field mt-2 py-1"
        aria-label="Add a step"
        value=""
        onChange={(event) => event.target.value && add(event.target.value)}
      >
        <option value="">add a step …</option>
        {controls.map((control, i) => (
          <option key={`${control.name} ${control.label}`} value={`box ${i}`}>
            {control.kind === 'text' ? 'type into' : control.kind === 'choice' ? 'choose in' : 'tick'} “
            {control.label}”
          </option>
        ))}
        {buttons.map(({ label }, i) => (
          <option key={`press ${label}`} value={`press ${i}`}>
            press “{label}”
          </option>
        ))}
        <option value="wait">wait</option>
      </select>
    </div>
  );
}

function StepEditor({
  step,
  forms,
  onStep,
}: {
  step: StepBody;
  forms: LookAnswer['forms'];
  onStep(step: StepBody): void;
}) {
  switch (step.do) {
    case 'type':
      return (
        <>
          type{' '}
          <input
            className="field figure w-40 py-0.5"
            aria-label={`Text for ${step.into}`}
            value={step.text ?? ''}
            onChange={(event) => onStep({ ...step, text: event.target.value })}
          />{' '}
          into “{step.into}”
        </>
      );
    case 'choose': {
      const options =
        forms.flatMap(({ controls }) => controls).find(({ label }) => label === step.in)?.options ?? [];
      return (
        <>
          choose{' '}
          <select
            className="field py-0.5"
            aria-label={`Choice in ${step.in}`}
            value={step.option ?? ''}
            onChange={(event) => onStep({ ...step, option: event.target.value })}
          >
            {[...new Set([step.option ?? '', ...options.map(({ label }) => label)])].map((label) => (
              <option key={label}>{label}</option>
            ))}
          </select>{' '}
          in “{step.in}”
        </>
      );
    }
    case 'tick':
      return (
        <label>
          <input
            type="checkbox"
            checked={step.on === true}
            onChange={(event) => onStep({ ...step, on: event.target.checked })}
          />{' '}
          {step.box}
        </label>
      );
    case 'wait':
      return (
        <>
          wait{' '}
          <input
            className="field figure w-16 py-0.5"
            aria-label="Seconds"
            inputMode="decimal"
            value={step.seconds ?? 0}
            onChange={(event) => onStep({ ...step, seconds: Number(event.target.value) || 0 })}
          />{' '}
          s
        </>
      );
    default:
      return <>{stepWords(step as Step)}</>;
  }
}
