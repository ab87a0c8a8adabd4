import { Router } from 'express';
import { VisitsBody, VisitsPaperBody, type VisitsAnswer, type VisitView } from '../../contract/visits.ts';
import { calendarText, cardsText } from '../../core/exports/calendar.ts';
import { LEVELS } from '../../core/fields/people.ts';
import { distanceKm } from '../../core/geo/distance.ts';
import { ROAD_FACTOR, tourOf } from '../../core/geo/tour.ts';
import { isoOf } from '../../core/dates.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { asOfDay } from '../days.ts';
import { laidOut } from '../paper/lay-out.ts';
import { calls } from '../engine/calls.ts';
import { body } from '../http/check.ts';
import type { Services } from '../services.ts';
import { noteOn } from '../tables/notes.ts';
import { readSettings } from '../tables/workspace.ts';

type Place = Omit<VisitView, 'km' | 'minutes' | 'at' | 'until' | 'person' | 'note'> & { id: number };

interface Spot {
  id: number;
  lat: number;
  lon: number;
}

const IDS_A_GO = 5000;

/** Levels of posts, the highest first, as SQL puts them in order. */
const BY_LEVEL = `CASE p.level ${LEVELS.map((level, rank) => `WHEN '${level}' THEN ${rank}`).join(' ')} ELSE ${LEVELS.length} END`;

/** A day's visits in a sensible order, as an answer, an iCalendar file or vCards. */
export function visitRoutes({ engine, universe, workspace }: Services): Router {
  const routes = Router();
  /** Those of some companies that have coordinates, in their order; of many in several goes, so that others are answered between. */
  const placed = async (ids: Uint32Array): Promise<Spot[]> => {
    const find = universe.prepare<[string], Spot>(
      `SELECT c.id, c.lat, c.lon FROM json_each(?) j JOIN company c ON c.id = j.value
       WHERE c.lat IS NOT NULL AND c.lon IS NOT NULL ORDER BY j.rowid`,
    );
    const spots: Spot[] = [];
    for (let from = 0; from < ids.length; from += IDS_A_GO) {
      spots.push(...find.all(`[${ids.subarray(from, from + IDS_A_GO).join()}]`));
      await new Promise((resolve) => setImmediate(resolve));
    }
    return spots;
  };

  const visits = async (wish: VisitsBody): Promise<VisitsAnswer> => {
    const { tape, sort, keys, ranges, except, most, stay, speed, from } = wish;
    const { subject } = tape as Tape;
    if (subject !== 'companies')
      throw new Problem('wrong-subject', `A tape on ${subject} cannot be visited.`, {
        field: 'tape.subject',
        value: subject,
        rule: 'companies',
      });
    const picks = { ...(keys && { keys }), ...(ranges && { ranges }), ...(except && { except }) };
    const { ids } = await engine.call(calls.recordsFor, [tape, sort, picks, 'companies']);
    const place = universe.prepare<[number], Place>(
      'SELECT id, key, name, street, postcode, town, country, web, lat, lon, phone FROM company WHERE id = ?',
    );
    const person = universe.prepare<[number], NonNullable<VisitView['person']>>(
      `SELECT p.key, p.name, p.title, p.mail, p.phone FROM person p WHERE p.company_id = ?
       ORDER BY ${BY_LEVEL}, p.certainty DESC, p.id LIMIT 1`,
    );
    const spots = await placed(ids);
    const [first] = spots;
    if (!first)
      throw new Problem('nowhere', 'None of these companies has a place on the map.', {
        field: 'tape',
        rule: 'companies with coordinates',
      });
    const home = place.get(first.id)!;
    const start = wish.start ?? { lat: home.lat, lon: home.lon, label: home.town ?? home.name };
    // A day's visits are those nearest to where it begins.
    const far = ({ lat, lon }: Spot) => distanceKm(start.lat, start.lon, lat, lon);
    const places = spots
      .map((spot) => ({ spot, km: far(spot) }))
      .sort((one, other) => one.km - other.km)
      .slice(0, most)
      .map(({ spot }) => place.get(spot.id)!);
    const tour = tourOf(start, places);
    const driving = (km: number) => Math.round((60 * ROAD_FACTOR * km) / speed);
    let clock = Number(from.slice(0, 2)) * 60 + Number(from.slice(3));
    const stops = tour.order.map((at, nth): VisitView => {
      const { id, ...one } = places[at]!;
      const km = tour.legs[nth]!;
      const minutes = driving(km);
      clock += minutes;
      const stop = {
        ...one,
        ...{ km, minutes, at: clockText(clock), until: clockText(clock + stay) },
        person: person.get(id) ?? null,
        note: noteOn(workspace, 'companies', one.key).text || null,
      };
      clock += stay;
      return stop;
    });
    const last = tour.legs.at(-1)!;
    const towns = await engine.call(calls.townsWithin, [
      around([start, ...stops].map(({ lat }) => lat)),
      around([start, ...stops].map(({ lon }) => lon)),
    ]);
    return {
      ...{ start, stops, towns },
      back: { km: last, minutes: driving(last), at: clockText(clock + driving(last)) },
      km: tour.km,
      minutes: stops.reduce((sum, { minutes }) => sum + minutes, driving(last)),
      without: ids.length - spots.length,
      beyond: spots.length - places.length,
    };
  };

  routes.post('/visits', async (request, response) => {
    response.json(await visits(body(VisitsBody, request)));
  });
  routes.post('/visits/calendar', async (request, response) => {
    const wish = body(VisitsBody, request);
    const { stops } = await visits(wish);
    const day = wish.day ?? isoOf(asOfDay(readSettings(workspace)));
    const stamp = `${new Date().toISOString().replace(/[-:]|\.\d+/g, '')}`;
    const text = calendarText(
      stops.map(
        ({ key, name, street, postcode, town, country, lat, lon, phone, person: whom, note, at, until }) => ({
          ...{ uid: `${day}-${key}@just-tally.example`, title: name, lat, lon },
          ...{ from: `${day}T${within(at)}`, to: `${day}T${within(until)}` },
          place: [street, [postcode, town].filter(Boolean).join(' '), country].filter(Boolean).join(', '),
          notes: [whom && [whom.name, whom.title].filter(Boolean).join(', '), phone, note]
            .filter(Boolean)
            .join('\n'),
        }),
      ),
      stamp,
    );
    response.attachment(`Visits ${day}.ics`).type('text/calendar; charset=utf-8').send(text);
  });
  routes.post('/visits/paper', async (request, response) => {
    const wish = body(VisitsPaperBody, request);
    const settings = readSettings(workspace);
    const asOf = isoOf(asOfDay(settings));
    const paper = {
      ...{ kind: 'visits' as const, size: wish.size, currency: settings.currency, numbers: settings.numbers },
      ...{ title: (wish.tape as Tape).name ?? 'A day’s visits', day: wish.day ?? asOf },
      ...{ words: await engine.call(calls.wordsOf, [wish.tape]), foot: `As of ${asOf}` },
      ...{ visits: await visits(wish), speed: wish.speed },
    };
    response.type('application/pdf').send(await laidOut(paper));
  });
  routes.post('/visits/cards', async (request, response) => {
    const { stops } = await visits(body(VisitsBody, request));
    const text = cardsText(
      stops.map(({ key, name, person: whom, phone, ...where }) => ({
        ...where,
        uid: `urn:just-tally:${whom?.key ?? key}`,
        name: whom?.name ?? name,
        organisation: name,
        title: whom?.title ?? null,
        phone: whom?.phone ?? phone,
        mail: whom?.mail ?? null,
      })),
    );
    response.attachment('Visits.vcf').type('text/vcard; charset=utf-8').send(text);
  });
  return routes;
}

function clockText(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** A calendar's day ends at midnight. */
function within(clock: string): string {
  return clock < '24:00' ? clock : '23:59';
}

/** From the least to the most of some degrees, and a little beyond. */
function around(degrees: readonly number[]): [number, number] {
  const [least, most] = [Math.min(...degrees), Math.max(...degrees)];
  const beyond = Math.max(0.02, (most - least) * 0.1);
  return [least - beyond, most + beyond];
}
