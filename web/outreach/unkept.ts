/** Drafts that are being typed and may not have been kept yet: nothing goes out before they are. */
const unkept = new Set<() => Promise<void>>();

/** Notes a way to keep a draft; returns the way to forget it. */
export function noteUnkept(keep: () => Promise<void>): () => void {
  unkept.add(keep);
  return () => void unkept.delete(keep);
}

/** Keeps all that was typed. */
export async function keepAll(): Promise<void> {
  await Promise.all([...unkept].map((keep) => keep()));
}
