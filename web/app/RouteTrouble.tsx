import { Link, useRouteError } from 'react-router';
import { Button } from '../ui/controls.tsx';

/** How browsers say that a part of the program is not there any more, as after it was built anew. */
const PART_MISSING = /dynamically imported module|module script failed/i;

/** What went wrong, for the eye. */
function told(error: unknown): string {
  if (!(error instanceof Error))
    return 'The program made a mistake. Your tapes, lists and files are unchanged.';
  return PART_MISSING.test(error.message)
    ? 'A part of the program could not be loaded; it may have been renewed since this page was opened. Load it again: the address keeps your tape.'
    : error.message;
}

/** A page that could not be shown, with the way back. */
export function RouteTrouble({ missing = false }: { missing?: boolean }) {
  const error = useRouteError();
  return (
    <main className="grid h-full place-items-center p-8">
      <div className="max-w-lg">
        <h1 className="title text-2xl">
          {missing ? 'There is no such page' : 'This page could not be shown'}
        </h1>
        <p className="mt-2 text-soft">
          {missing ? 'The address may have been cut when it was copied.' : told(error)}
        </p>
        <p className="mt-4 flex items-center gap-4">
          {!missing && (
            <Button look="ink" onClick={() => window.location.reload()}>
              Load it again
            </Button>
          )}
          <Link to="/desk" className="underline">
            To the Desk
          </Link>
        </p>
      </div>
    </main>
  );
}
