import { useState } from 'react';
import { SCHEMES, type Scheme } from '../../../core/codes/tree.ts';
import { Button } from '../../ui/controls.tsx';

/** A list of codes pasted from elsewhere; dots, spaces and leading letters are forgiven, what is no code is named. */
export function PasteCodes({
  scheme,
  codes,
  onCodes,
}: {
  scheme: Scheme;
  codes: readonly string[];
  onCodes(codes: string[]): void;
}) {
  const [text, setText] = useState('');
  const plain = (code: string) => code.toUpperCase().replace(/[.\-/\s]/g, '');
  const byPlain = new Map(codes.map((code) => [plain(code), code]));
  const written = text.split(/[\s,;]+/).filter(Boolean);
  const found = written.map(
    (one) => byPlain.get(plain(one)) ?? byPlain.get(plain(one).replace(/^[A-Z]/, '')),
  );
  const wrong = written.filter((_, i) => found[i] === undefined);
  const right = [...new Set(found.filter((one) => one !== undefined))];
  return (
    <form
      className="mb-3 flex items-start gap-3 rounded-md border border-edge bg-paper p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (right.length && wrong.length === 0) onCodes(right);
      }}
    >
      <textarea
        autoFocus
        value={text}
        rows={3}
        onChange={(event) => setText(event.target.value)}
        placeholder={`codes of ${SCHEMES[scheme]}, one a line or by commas`}
        aria-label={`Codes of ${SCHEMES[scheme]}`}
        className="field figure min-w-0 flex-1"
      />
      <div className="w-60">
        <Button type="submit" disabled={right.length === 0 || wrong.length > 0}>
          Add {right.length || ''} codes
        </Button>
        {wrong.length > 0 && (
          <p role="alert" className="mt-2 text-[13px] text-cut">
            “{wrong[0]}” is no code of {SCHEMES[scheme]}
            {wrong.length > 1 ? `, nor are ${wrong.length - 1} more` : ''}.
          </p>
        )}
      </div>
    </form>
  );
}
