/** Mean radius of the Earth in kilometres (IUGG mean radius R1). */
export const EARTH_KM = 6371.0088;

/** Kilometres in one international mile. */
export const KM_A_MILE = 1.609344;

const RADIANS = Math.PI / 180;

/** Great-circle distance in kilometres between two points in degrees (haversine). */
export function distanceKm(lat1: number, lon1: number, lat2: number, lon2: number): number {
  const sinLat = Math.sin(((lat2 - lat1) * RADIANS) / 2);
  const sinLon = Math.sin(((lon2 - lon1) * RADIANS) / 2);
  const h = sinLat * sinLat + Math.cos(lat1 * RADIANS) * Math.cos(lat2 * RADIANS) * sinLon * sinLon;
  return 2 * EARTH_KM * Math.asin(Math.sqrt(Math.min(1, h)));
}

/** Half the height in degrees of latitude of a circle of `km` around any point, a hair on the safe side. */
export function latitudeReach(km: number): number {
  return km / 111.19 + 1e-6;
}
