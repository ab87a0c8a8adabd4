import type { Sector } from './sector.ts';
import { MAKING } from './sectors-making.ts';
import { SERVING } from './sectors-serving.ts';

export const SECTORS: readonly Sector[] = [...MAKING, ...SERVING];
