import { useQuery } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { TownsAnswer } from '../../contract/responses.ts';
import { MOST_STOPS, SPEED, type VisitsAnswer } from '../../contract/visits.ts';
import { ROAD_FACTOR } from '../../core/geo/tour.ts';
import { call, callForFile } from '../api.ts';
import { useSettings } from '../app/settings.ts';
import { saveFile } from '../charts/save-file.ts';
import { useFormat } from '../app/format.ts';
import type { Acted } from '../desk/acted.ts';
import { picksBody } from '../desk/picks.ts';
import { countedPart } from '../desk/queries.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { RouteSketch } from './RouteSketch.tsx';

/** Companies as a day's visits: in a sensible order from a town and back, with times, whom to ask for and what was noted. */
export function VisitsDialog({ acted, onClose }: { acted: Acted; onClose(): void }) {
  const format = useFormat();
  const [town, setTown] = useState('');
  const [day, setDay] = useState('');
  const [from, setFrom] = useState('09:00');
  const [stay, setStay] = useState(45);
  const [most, setMost] = useState(8);
  const { data: towns } = useQuery({
    queryKey: ['towns', town],
    queryFn: ({ signal }) =>
      call<TownsAnswer>('GET', `/towns?search=${encodeURIComponent(town.trim())}`, undefined, signal),
    enabled: town.trim().length > 1,
  });
  const found = town.trim().length > 1 ? towns?.towns[0] : undefined;
  const wish = {
    tape: { ...countedPart(acted.tape), ...(acted.tape.name ? { name: acted.tape.name } : {}) },
    sort: acted.sort,
    ...picksBody(acted.picks),
    ...(found ? { start: { lat: found.lat, lon: found.lon, label: found.name } } : {}),
    ...(day ? { day } : {}),
    ...{ from, stay, most },
  };
  const { data, error, isFetching } = useQuery({
    queryKey: ['visits', wish],
    queryFn: ({ signal }) => call<VisitsAnswer>('POST', '/visits', wish, signal),
    placeholderData: (before) => before,
    retry: false,
  });
  const { paper } = useSettings();
  const download = async (kind: 'calendar' | 'cards' | 'paper', name: string) => {
    try {
      const asked = kind === 'paper' ? { ...wish, size: paper } : wish;
      saveFile(await callForFile(`/visits/${kind}`, asked), name);
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  return (
    <Dialog open title="A day’s visits" description={acted.tape.name} onClose={onClose} width={940}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 text-[13px]">
        <label className="flex items-center gap-2">
          From
          <input
            autoFocus
            className="field w-44"
            placeholder="the first of them"
            value={town}
            onChange={(event) => setTown(event.target.value)}
          />
        </label>
        {town.trim().length > 1 && (
          <span className="text-soft">{found ? `${found.name}, ${found.regionName}` : 'no such town'}</span>
        )}
        <label className="flex items-center gap-2">
          on
          <input type="date" className="field" value={day} onChange={(event) => setDay(event.target.value)} />
        </label>
        <label className="flex items-center gap-2">
          at
          <input
            type="time"
            className="field"
            value={from}
            onChange={(event) => setFrom(event.target.value || '09:00')}
          />
        </label>
        <label className="flex items-center gap-2">
          <input
            type="number"
            min={5}
            max={600}
            aria-label="Minutes at each"
            className="field w-16"
            value={stay}
            onChange={(event) => setStay(within(event.target.valueAsNumber, 5, 600))}
          />
          minutes each,
        </label>
        <label className="flex items-center gap-2">
          at most
          <input
            type="number"
            min={1}
            max={MOST_STOPS}
            aria-label="Visits at most"
            className="field w-16"
            value={most}
            onChange={(event) => setMost(within(event.target.valueAsNumber, 1, MOST_STOPS))}
          />
        </label>
      </div>
      <div className="mt-2">
        <Trouble error={error} />
      </div>
      {!data && !error && <p className="py-4 text-soft">Finding the way …</p>}
      {data && (
        <div className={`mt-2 grid grid-cols-[1fr_210px] gap-5 ${isFetching ? 'opacity-60' : ''}`}>
          <table className="w-full self-start text-[13px]" aria-label="Visits">
            <thead className="border-b border-edge text-[12px]">
              <tr>
                {['', 'When', 'Company', 'Whom to ask for', 'Phone'].map((head) => (
                  <th key={head} className="py-1 pr-3 text-left font-semibold">
                    {head}
                  </th>
                ))}
                <th className="py-1 text-right font-semibold">Way</th>
              </tr>
            </thead>
            <tbody>
              {data.stops.map((stop, nth) => (
                <tr key={stop.key} className="border-b border-rule align-top">
                  <td className="figure py-1 pr-2 text-soft">{nth + 1}</td>
                  <td className="figure py-1 pr-3 whitespace-nowrap">
                    {stop.at}–{stop.until}
                  </td>
                  <td className="py-1 pr-3">
                    <strong>{stop.name}</strong>
                    <span className="block text-[12px] text-soft">
                      {[stop.street, [stop.postcode, stop.town].filter(Boolean).join(' ')]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                    {stop.note && <span className="block text-[12px] italic">{stop.note}</span>}
                  </td>
                  <td className="py-1 pr-3">
                    {stop.person ? (
                      <>
                        {stop.person.name}
                        <span className="block text-[12px] text-soft">{stop.person.title}</span>
                      </>
                    ) : (
                      <span className="text-soft">–</span>
                    )}
                  </td>
                  <td className="figure py-1 pr-3 text-[12px] whitespace-nowrap">
                    {stop.person?.phone ?? stop.phone ?? '–'}
                  </td>
                  <td className="py-1 text-right whitespace-nowrap">
                    <span className="figure">{format.number(stop.km, 1)}</span> km
                    <span className="block text-[12px] text-soft">
                      about <span className="figure">{stop.minutes}</span> min
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="text-[13px]">
            <RouteSketch start={data.start} stops={data.stops} towns={data.towns} />
            <p className="mt-2">
              <span className="figure text-xl font-semibold">{format.number(data.km, 0)}</span> km as the crow
              flies, about <span className="figure">{format.number(data.minutes)}</span> minutes of driving;
              back at {data.start.label} at <span className="figure">{data.back.at}</span>.
            </p>
            <p className="mt-1 text-[12px] text-soft">
              Driving is estimated: roads taken {ROAD_FACTOR} times as long, at {SPEED} km an hour.
              {data.beyond > 0 && ` ${format.number(data.beyond)} more are farther than the nearest ${most}.`}
              {data.without > 0 && ` ${format.number(data.without)} have no place on the map.`}
            </p>
          </div>
        </div>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button
          disabled={!data}
          title={`As PDF, ${paper}`}
          onClick={() => void download('paper', 'Visits.pdf')}
        >
          <Printer size={14} /> Print
        </Button>
        <Button disabled={!data} onClick={() => void download('cards', 'Visits.vcf')}>
          vCards
        </Button>
        <Button look="ink" disabled={!data} onClick={() => void download('calendar', 'Visits.ics')}>
          Into a calendar
        </Button>
      </div>
    </Dialog>
  );
}

function within(value: number, least: number, most: number): number {
  return Number.isFinite(value) ? Math.min(most, Math.max(least, Math.round(value))) : least;
}
