import { geoMercator, geoPath } from 'd3-geo';
import type { CitiesAnswer } from '../../../contract/responses.ts';
import type { ClustersAnswer } from '../../../contract/market.ts';
import { shortCount } from '../../../core/charts/wording.ts';
import { latitudeOf, mercatorX, mercatorY } from '../../../core/geo/clusters.ts';
import { drawCities } from './cities.ts';
import type { Land } from './land.ts';

/** A view: its middle in degrees, and pixels a radian at the equator. */
export interface View {
  lon: number;
  lat: number;
  scale: number;
}

export const EUROPE: View = { lon: 13, lat: 51.5, scale: 780 };
const LEAST_SCALE = 130;
const MOST_SCALE = 120_000;
/** Pixels between the middles of clusters. */
const CELL = 52;
/** How far beyond the view the land is drawn and clusters are asked for, as a share of it, so that a pan has something to show. */
const MARGIN = 0.5;

export interface Box {
  west: number;
  south: number;
  east: number;
  north: number;
  cells: number;
}

export type Corner = readonly [lat: number, lon: number];

/** What lies under the hand. */
export type Under =
  | { kind: 'single'; key: string; name: string }
  | { kind: 'cluster'; count: number; lat: number; lon: number }
  | { kind: 'region'; key: string; country: string }
  | null;

/**
 * The map as it is drawn: land and shading once into a picture larger than the view, which a pan only moves, and over
 * it clusters and single records. Knows nothing of React.
 */
export class MapCanvas {
  view: View = EUROPE;
  clusters: Pick<ClustersAnswer, 'clusters' | 'singles'> | null = null;
  corners: readonly Corner[] = [];
  /** By key of a region or, where whole countries are shaded, by country: from 0 to 1. Null where nothing is shaded. */
  shades: { by: 'country' | 'region'; of: ReadonlyMap<string, number> } | null = null;
  private land: Land | undefined;
  private cities: CitiesAnswer['cities'] = [];
  private readonly canvas: HTMLCanvasElement;
  private base: { picture: HTMLCanvasElement; view: View; shown: string } | null = null;
  private baseVersion = 0;
  private asked = 0;
  private rebuild: ReturnType<typeof setTimeout> | undefined;

  constructor(canvas: HTMLCanvasElement) {
    this.canvas = canvas;
  }

  get width(): number {
    return this.canvas.clientWidth;
  }

  get height(): number {
    return this.canvas.clientHeight;
  }

  setLand(land: Land | undefined, cities: CitiesAnswer['cities']): void {
    this.land = land;
    this.cities = cities;
    this.renew();
  }

  /** Draws the land anew, as after a change of shading or theme. */
  renew(): void {
    this.baseVersion++;
    this.draw();
  }

  /** Draws at the next frame. */
  draw(): void {
    if (this.asked) return;
    this.asked = requestAnimationFrame(() => {
      this.asked = 0;
      this.paint();
    });
  }

  dispose(): void {
    cancelAnimationFrame(this.asked);
    clearTimeout(this.rebuild);
  }

  /** Moves the view by pixels. */
  pan(view: View, dx: number, dy: number): View {
    const world = 2 * Math.PI * view.scale;
    const y = Math.max(0.02, Math.min(0.98, mercatorY(view.lat) - dy / world));
    return { ...view, lon: Math.max(-180, Math.min(180, view.lon - (dx / world) * 360)), lat: latitudeOf(y) };
  }

  /** Zooms about a point of the view, which stays under the hand. */
  zoom(view: View, factor: number, x = this.width / 2, y = this.height / 2): View {
    const scale = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, view.scale * factor));
    const there = this.pan(view, this.width / 2 - x, this.height / 2 - y);
    return this.pan({ ...there, scale }, x - this.width / 2, y - this.height / 2);
  }

  /** The view that shows a stretch of the world. */
  fit(west: number, south: number, east: number, north: number): View {
    const spanX = mercatorX(east) - mercatorX(west);
    const spanY = mercatorY(south) - mercatorY(north);
    const world = Math.min(this.width / Math.max(1e-6, spanX), this.height / Math.max(1e-6, spanY)) * 0.9;
    return {
      lon: (west + east) / 2,
      lat: latitudeOf((mercatorY(north) + mercatorY(south)) / 2),
      scale: Math.max(LEAST_SCALE, Math.min(MOST_SCALE, world / (2 * Math.PI))),
    };
  }

  toPixels(lat: number, lon: number, view = this.view): [x: number, y: number] {
    const world = 2 * Math.PI * view.scale;
    return [
      this.width / 2 + (mercatorX(lon) - mercatorX(view.lon)) * world,
      this.height / 2 + (mercatorY(lat) - mercatorY(view.lat)) * world,
    ];
  }

  toPlace(x: number, y: number): Corner {
    const world = 2 * Math.PI * this.view.scale;
    return [
      latitudeOf(mercatorY(this.view.lat) + (y - this.height / 2) / world),
      (mercatorX(this.view.lon) + (x - this.width / 2) / world) * 360 - 180,
    ];
  }

  /** The stretch to ask clusters for: the view and a margin, on a grid that stays where it is while the map is moved. */
  box(): Box {
    const world = 2 * Math.PI * this.view.scale;
    const cell = CELL / world;
    const [left, top] = [mercatorX(this.view.lon), mercatorY(this.view.lat)];
    const halfX = (this.width / 2 / world) * (1 + MARGIN);
    const halfY = (this.height / 2 / world) * (1 + MARGIN);
    const snap = (value: number, up: boolean) =>
      (up ? Math.ceil(value / cell) : Math.floor(value / cell)) * cell;
    const x1 = Math.max(0, snap(left - halfX, false));
    const x2 = Math.min(1, snap(left + halfX, true));
    const y1 = Math.max(0.001, snap(top - halfY, false));
    const y2 = Math.min(0.999, snap(top + halfY, true));
    const round = (value: number) => Math.round(value * 1e6) / 1e6;
    return {
      west: round(x1 * 360 - 180),
      east: round(x2 * 360 - 180),
      north: round(latitudeOf(y1)),
      south: round(latitudeOf(y2)),
      cells: Math.max(1, Math.min(200, Math.round((x2 - x1) / cell))),
    };
  }

  /** The corners of the view. */
  seen(): { west: number; south: number; east: number; north: number } {
    const [north, west] = this.toPlace(0, 0);
    const [south, east] = this.toPlace(this.width, this.height);
    return { west, south, east, north };
  }

  under(x: number, y: number): Under {
    if (!this.shades && this.clusters) {
      for (const { key, name, lat, lon } of this.clusters.singles) {
        const [px, py] = this.toPixels(lat, lon);
        if (Math.hypot(px - x, py - y) < 7) return { kind: 'single', key, name };
      }
      const { clusters } = this.clusters;
      for (let i = 0; i < clusters.length; i += 3) {
        const [px, py] = this.toPixels(clusters[i + 1]!, clusters[i]!);
        if (Math.hypot(px - x, py - y) < this.radius(clusters[i + 2]!))
          return { kind: 'cluster', count: clusters[i + 2]!, lat: clusters[i + 1]!, lon: clusters[i]! };
      }
    }
    return this.shades ? this.regionAt(x, y) : null;
  }

  private regionAt(x: number, y: number): Under {
    const context = this.canvas.getContext('2d');
    if (!this.land || !context) return null;
    const projection = this.projection(this.view, this.width, this.height);
    const path = geoPath(projection);
    for (const region of this.land.regions.features) {
      const bounds = path.bounds(region);
      if (x < bounds[0][0] || x > bounds[1][0] || y < bounds[0][1] || y > bounds[1][1]) continue;
      const shape = new Path2D(path(region) ?? '');
      const ratio = window.devicePixelRatio || 1;
      if (context.isPointInPath(shape, x * ratio, y * ratio)) return { kind: 'region', ...region.properties };
    }
    return null;
  }

  private projection(view: View, width: number, height: number) {
    return geoMercator()
      .center([view.lon, view.lat])
      .scale(view.scale)
      .translate([width / 2, height / 2])
      .clipExtent([
        [-2, -2],
        [width + 2, height + 2],
      ]);
  }

  private radius(count: number): number {
    return Math.min(CELL / 2, 9 + 5 * Math.log10(count));
  }

  private paint(): void {
    const { width, height } = this;
    const context = this.canvas.getContext('2d');
    if (!context || width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    if (
      this.canvas.width !== Math.round(width * ratio) ||
      this.canvas.height !== Math.round(height * ratio)
    ) {
      this.canvas.width = Math.round(width * ratio);
      this.canvas.height = Math.round(height * ratio);
    }
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.fillStyle = colour('--water');
    context.fillRect(0, 0, width, height);
    this.paintBase(context, colour);
    const project = ([lon, lat]: [number, number]) => this.toPixels(lat, lon);
    drawCities(context, this.cities, project, { width, height }, colour, undefined);
    // Over the names of towns, which are for bearings: a count must not be hidden.
    if (!this.shades) this.paintRecords(context, colour);
    this.paintCorners(context, colour);
  }

  private paintBase(context: CanvasRenderingContext2D, colour: (name: string) => string): void {
    const { width, height, base } = this;
    const shown = `${width} ${height} ${this.baseVersion}`;
    if (!base || base.shown !== shown) this.buildBase(colour, shown);
    const now = this.base;
    if (!now) return;
    const factor = this.view.scale / now.view.scale;
    const [x, y] = this.toPixels(now.view.lat, now.view.lon);
    const [w, h] = [width * (1 + 2 * MARGIN) * factor, height * (1 + 2 * MARGIN) * factor];
    context.drawImage(now.picture, x - w / 2, y - h / 2, w, h);
    const beyond =
      Math.abs(x - width / 2) > width * MARGIN * 0.8 || Math.abs(y - height / 2) > height * MARGIN * 0.8;
    if (factor !== 1 || beyond) {
      clearTimeout(this.rebuild);
      this.rebuild = setTimeout(() => {
        this.buildBase(colour, shown);
        this.draw();
      }, 120);
    }
  }

  private buildBase(colour: (name: string) => string, shown: string): void {
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [this.width * (1 + 2 * MARGIN), this.height * (1 + 2 * MARGIN)];
    const picture = document.createElement('canvas');
    picture.width = Math.round(width * ratio);
    picture.height = Math.round(height * ratio);
    const context = picture.getContext('2d')!;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.fillStyle = colour('--water');
    context.fillRect(0, 0, width, height);
    if (this.land) {
      const path = geoPath(this.projection(this.view, width, height), context);
      context.beginPath();
      path(this.land.regions);
      context.fillStyle = colour('--paper');
      context.fill();
      if (this.shades)
        for (const region of this.land.regions.features) {
          const shade = this.shades.of.get(
            this.shades.by === 'country' ? region.properties.country : region.properties.key,
          );
          if (shade === undefined) continue;
          context.beginPath();
          path(region);
          context.globalAlpha = shade;
          context.fillStyle = colour('--ink');
          context.fill();
          context.globalAlpha = 1;
        }
      context.lineWidth = 0.5;
      context.strokeStyle = colour('--rule');
      context.beginPath();
      if (this.shades?.by !== 'country') path(this.land.inner);
      context.stroke();
      context.lineWidth = 1;
      context.strokeStyle = colour('--edge');
      context.beginPath();
      path(this.land.borders);
      context.stroke();
    }
    this.base = { picture, view: this.view, shown };
  }

  private paintRecords(context: CanvasRenderingContext2D, colour: (name: string) => string): void {
    if (!this.clusters) return;
    const { clusters, singles } = this.clusters;
    const [ink, paper] = [colour('--ink'), colour('--paper')];
    context.fillStyle = ink;
    context.strokeStyle = paper;
    context.lineWidth = 1;
    for (const { lat, lon } of singles) {
      const [x, y] = this.toPixels(lat, lon);
      if (x < -9 || y < -9 || x > this.width + 9 || y > this.height + 9) continue;
      context.beginPath();
      context.arc(x, y, 4.5, 0, 2 * Math.PI);
      context.fill();
      context.stroke();
    }
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    for (let i = 0; i < clusters.length; i += 3) {
      const count = clusters[i + 2]!;
      const [x, y] = this.toPixels(clusters[i + 1]!, clusters[i]!);
      if (x < -40 || y < -40 || x > this.width + 40 || y > this.height + 40) continue;
      context.beginPath();
      context.arc(x, y, count === 1 ? 4.5 : this.radius(count), 0, 2 * Math.PI);
      context.fillStyle = ink;
      context.globalAlpha = count === 1 ? 1 : 0.86;
      context.fill();
      context.globalAlpha = 1;
      context.stroke();
      if (count === 1) continue;
      context.fillStyle = paper;
      context.font = `600 ${count < 1000 ? 11 : 10}px "Spline Sans Mono"`;
      context.fillText(shortCount(count), x, y + 0.5);
    }
    context.textAlign = 'start';
    context.textBaseline = 'alphabetic';
  }

  private paintCorners(context: CanvasRenderingContext2D, colour: (name: string) => string): void {
    if (this.corners.length === 0) return;
    context.beginPath();
    this.corners.forEach(([lat, lon], i) => {
      const [x, y] = this.toPixels(lat, lon);
      if (i === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    });
    context.lineWidth = 2;
    context.strokeStyle = colour('--kept');
    context.stroke();
    for (const [lat, lon] of this.corners) {
      const [x, y] = this.toPixels(lat, lon);
      context.beginPath();
      context.arc(x, y, 4.5, 0, 2 * Math.PI);
      context.fillStyle = colour('--paper');
      context.fill();
      context.stroke();
    }
  }
}
