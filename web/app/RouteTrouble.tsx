import { Link, useRouteError } from 'react-router';

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
          {missing
            ? 'The address may have been cut when it was copied.'
            : error instanceof Error
              ? error.message
              : 'The program made a mistake. Your tapes, lists and files are unchanged.'}
        </p>
        <p className="mt-4">
          <Link to="/desk" className="underline">
            To the Desk
          </Link>
        </p>
      </div>
    </main>
  );
}
