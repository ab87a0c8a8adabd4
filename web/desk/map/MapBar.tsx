import type { ClustersAnswer } from '../../../contract/market.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { Button, Kbd, Segments } from '../../ui/controls.tsx';
import type { Part } from './parts.ts';
import { drawnAt } from './place-line.ts';
import { SHADE_MEASURES, type Per } from './shading.tsx';

/** What a map shows: single records, or countries or regions shaded. */
export type Shown = 'points' | 'country' | 'region';

/** What is over the map: what it shows, where it goes, and keeping a part of it. */
export function MapBar({
  subject,
  places,
  shown,
  onShow,
  measure,
  onMeasure,
  per,
  onPer,
  parts,
  onPart,
  corners,
  onDraw,
  onClose,
  onLeave,
  onKeepView,
  onPutView,
}: {
  subject: string;
  places: ClustersAnswer['places'] | undefined;
  shown: Shown;
  onShow(shown: Shown): void;
  measure: string;
  onMeasure(measure: string): void;
  per: Per;
  onPer(per: Per): void;
  parts: readonly Part[];
  /** Null for Europe. */
  onPart(bounds: Part['bounds'] | null): void;
  /** Corners of the area being drawn; null while none is. */
  corners: number | null;
  onDraw(): void;
  onClose(): void;
  onLeave(): void;
  onKeepView(): void;
  onPutView(): void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-2 py-2 text-[13px]">
      {fieldOf(subject, 'place') ? (
        <Segments
          label="Show"
          value={shown}
          onChange={onShow}
          options={[
            { key: 'points', label: 'Points' },
            { key: 'country', label: 'Countries' },
            { key: 'region', label: 'Regions' },
          ]}
        />
      ) : (
        <span className="text-soft">{drawnAt(subject, places)}</span>
      )}
      {shown !== 'points' && (
        <>
          <select
            aria-label="Shaded by"
            className="field w-36 py-1"
            value={measure}
            onChange={(event) => onMeasure(event.target.value)}
          >
            {SHADE_MEASURES.filter(({ field }) => field === null || fieldOf(subject, field)).map(
              ({ key, label }) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ),
            )}
          </select>
          {/* A median stands for itself. */}
          {SHADE_MEASURES.find(({ key }) => key === measure)?.measure.of !== 'median' && (
            <select
              aria-label="In relation to"
              className="field w-36 py-1"
              value={per}
              onChange={(event) => onPer(event.target.value as Per)}
            >
              <option value="all">in all</option>
              <option value="record">
                {measure === 'count'
                  ? `of 100 ${subjectOf(subject).many} there`
                  : `a ${subjectOf(subject).one}`}
              </option>
              <option value="inhabitants">for 100,000 inhabitants</option>
            </select>
          )}
        </>
      )}
      <select
        aria-label="Part of the world"
        className="field w-28 py-1"
        value=""
        onChange={(event) => {
          const part = parts.find(({ code }) => code === event.target.value);
          if (part) onPart(part.bounds);
          else if (event.target.value === 'europe') onPart(null);
        }}
      >
        <option value="">go to …</option>
        <option value="europe">Europe</option>
        {parts.map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
      <span className="ml-auto flex gap-2">
        {corners !== null ? (
          <>
            <span className="self-center text-soft">
              {corners < 3 ? 'click the corners' : 'click the first corner again'}
            </span>
            <Button look="ink" disabled={corners < 3} onClick={onClose}>
              Keep this area
            </Button>
            <Button onClick={onLeave}>
              Cancel <Kbd>Esc</Kbd>
            </Button>
          </>
        ) : (
          <>
            <Button onClick={onDraw}>Draw an area</Button>
            <Button onClick={onKeepView}>Keep the view</Button>
            <Button title="Put those in view on a list" onClick={onPutView}>
              View to a list
            </Button>
          </>
        )}
      </span>
    </div>
  );
}
