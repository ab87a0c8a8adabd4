import { useState } from 'react';
import type { LookAnswer } from '../../contract/gather-views.ts';
import type { ExampleBody } from '../../contract/gather.ts';
import { GATHER_FIELDS, headingOf } from '../../core/gather/fields.ts';
import { useFormat } from '../app/format.ts';
import { Button } from '../ui/controls.tsx';

/** A value that was pointed at, and what it is to be called. */
export interface FieldWish {
  node: number;
  text: string;
  part: string | null;
  guess: string;
}

const ADDRESS = 'address';

/** Asks what a value is: one of the fields of companies, an address of three, or a heading of one's own. */
export function FieldBar({
  wish,
  onField,
  onClose,
}: {
  wish: FieldWish;
  /** All the fields that it is: an address is three. */
  onField(fields: string[]): void;
  onClose(): void;
}) {
  const [field, setField] = useState(
    wish.guess in GATHER_FIELDS || wish.guess === ADDRESS
      ? wish.guess
      : wish.guess === 'place'
        ? ADDRESS
        : 'own',
  );
  const [own, setOwn] = useState('');
  const words = wish.part ?? wish.text;
  return (
    <form
      className="flex flex-wrap items-center gap-2 rounded-md border border-ink bg-paper px-3 py-1.5"
      aria-label="What this value is"
      onSubmit={(event) => {
        event.preventDefault();
        if (field === 'own' && own.trim() === '') return;
        onField(
          field === ADDRESS
            ? ['street', 'postcode', 'town']
            : [field === 'own' ? `own:${own.trim()}` : field],
        );
      }}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <span className="max-w-72 truncate">“{words}”</span> is
      <select
        className="field py-1"
        aria-label="Field"
        autoFocus
        value={field}
        onChange={(event) => setField(event.target.value)}
      >
        {Object.entries(GATHER_FIELDS).map(([key, label]) => (
          <option key={key} value={key}>
            {label.toLowerCase()}
          </option>
        ))}
        <option value={ADDRESS}>address, taken apart</option>
        <option value="own">a column of my own …</option>
      </select>
      {field === 'own' && (
        <input
          className="field w-40 py-1"
          placeholder="its heading"
          aria-label="Heading"
          maxLength={60}
          value={own}
          onChange={(event) => setOwn(event.target.value)}
        />
      )}
      <Button type="submit" look="ink" className="py-1!">
        Take it
      </Button>
      <Button look="quiet" onClick={onClose}>
        Leave it
      </Button>
    </form>
  );
}

/** One example: what it holds, and how wide it is. */
export function ExampleBar({
  nth,
  example,
  look,
  wider,
  narrower,
  onNode,
  onDropField,
  onRemove,
  onClose,
}: {
  nth: number;
  example: ExampleBody;
  look: LookAnswer | undefined;
  /** The next wider and narrower elements that may be the row. */
  wider: { node: number; alike: number } | null;
  narrower: { node: number; alike: number } | null;
  onNode(node: number): void;
  onDropField(field: string): void;
  onRemove(): void;
  onClose(): void;
}) {
  const format = useFormat();
  const row = look?.rows.find(({ node }) => node === example.node);
  return (
    <div
      className="flex flex-wrap items-center gap-2 rounded-md border border-kept bg-paper px-3 py-1.5 text-[13px]"
      aria-label="Example"
      role="group"
    >
      <b>{example.as === 'row' ? `Example ${nth}` : 'Advert'}</b>
      {example.fields.map(({ field }) => (
        <button
          key={field}
          type="button"
          className="rounded border border-dashed border-kept px-1.5 text-kept hover:bg-ground"
          title={`${row?.values.find((value) => value.field === field)?.value ?? ''}; press to take it off`}
          onClick={() => onDropField(field)}
        >
          {headingOf(field).toLowerCase()} ×
        </button>
      ))}
      <span className="ml-auto flex items-center gap-1">
        <Button
          look="quiet"
          disabled={!narrower}
          onClick={() => narrower && onNode(narrower.node)}
          title={narrower ? `${format.number(narrower.alike)} like it` : undefined}
        >
          Narrower
        </Button>
        <Button
          look="quiet"
          disabled={!wider}
          onClick={() => wider && onNode(wider.node)}
          title={wider ? `${format.number(wider.alike)} like it` : undefined}
        >
          Wider
        </Button>
        <Button look="quiet" onClick={onRemove}>
          Not this one
        </Button>
        <Button look="quiet" onClick={onClose}>
          Done
        </Button>
      </span>
    </div>
  );
}
