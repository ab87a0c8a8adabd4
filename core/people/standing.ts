import { isGeneral } from './local-parts.ts';

/** How far an address of a person is to be trusted, the best first. */
export const ADDRESS_STANDINGS = ['confirmed', 'recorded', 'likely', 'guess', 'general', 'refuted'] as const;
export type AddressStanding = (typeof ADDRESS_STANDINGS)[number];

/** Made addresses that are at least so sure are called likely; in percent. */
export const LIKELY_FROM = 80;

/**
 * How sure an address is that a source records without saying how sure, in percent. It is an assumption, and stands as one in
 * docs/outreach.md: some of those recorded have left since. What comes back by mail says more of each.
 */
export const RECORDED_CERTAINTY = 97;
/** Of one that was answered from, or that a mail host took and that did not come back. */
export const CONFIRMED_CERTAINTY = 99;

/** How sure a guess is of which its source does not say how sure, in percent; an assumption like the others. */
export const GUESS_CERTAINTY = 50;

/** What became of an address that was written to. */
export type AddressOutcome = 'confirmed' | 'refuted';

/** Whether a source that has an address says that it was made or came back, so that it teaches nothing of how addresses are formed. */
export function isNoEvidence(standing: AddressStanding | null): boolean {
  return standing === 'likely' || standing === 'guess' || standing === 'refuted';
}

/**
 * The standing and the certainty in percent of an address that a source records. What came of writing to it counts before what the
 * source says of its standing.
 */
export function ofRecorded(
  mail: string,
  stated: number | null,
  outcome: AddressOutcome | undefined,
  standing: AddressStanding | null = null,
): { address: AddressStanding; certainty: number } {
  const known = outcome ?? standing;
  if (known === 'refuted') return { address: 'refuted', certainty: 0 };
  if (known === 'confirmed') return { address: 'confirmed', certainty: CONFIRMED_CERTAINTY };
  if (known === 'likely' || known === 'guess') {
    const certainty = stated ?? (known === 'likely' ? LIKELY_FROM : GUESS_CERTAINTY);
    return { address: certainty >= LIKELY_FROM ? 'likely' : 'guess', certainty };
  }
  return { address: isGeneral(mail) ? 'general' : 'recorded', certainty: stated ?? RECORDED_CERTAINTY };
}

/** The same of one made by pattern, of a certainty from 0 to 1. What is written rounds down: nothing seems surer than it is. */
export function ofMade(
  certainty: number,
  outcome: AddressOutcome | undefined,
): { address: AddressStanding; certainty: number } {
  if (outcome === 'confirmed') return { address: 'confirmed', certainty: CONFIRMED_CERTAINTY };
  const percent = Math.floor(100 * certainty);
  return { address: percent >= LIKELY_FROM ? 'likely' : 'guess', certainty: percent };
}
