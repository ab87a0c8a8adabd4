import { useState } from 'react';

/** A figure within a line of text that can be typed over: kept with Enter or on leaving it, as it was with Esc. */
export function InlineNumber(figure: Figure) {
  // Another value from outside begins anew.
  return <TypedOver key={figure.value} {...figure} />;
}

interface Figure {
  value: number;
  most: number;
  least?: number;
  label: string;
  onKeep(value: number): void;
}

function TypedOver({ value, most, least = 0, label, onKeep }: Figure) {
  const [text, setText] = useState(String(value));
  const keep = () => {
    const next = Number(text);
    if (text.trim() === '' || !Number.isInteger(next) || next < least || next > most) setText(String(value));
    else if (next !== value) onKeep(next);
  };
  return (
    <input
      aria-label={label}
      inputMode="numeric"
      value={text}
      className="figure border-b border-ink bg-transparent text-center outline-none focus:bg-ground"
      style={{ width: `${Math.max(2, text.length) + 0.6}ch` }}
      onChange={(event) => setText(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setText(String(value));
          event.stopPropagation();
        }
      }}
    />
  );
}
