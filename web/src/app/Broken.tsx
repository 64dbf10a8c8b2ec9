import { Link } from 'react-router';

/** Shown where a page cannot be: a wrong address, or a fault in the program. */
export function Broken({ missing = false }: { missing?: boolean }) {
  return (
    <main className="stage">
      <h1>{missing ? 'There is nothing at this address' : 'This page could not be shown'}</h1>
      <p>
        {missing ? 'It may have been mistyped.' : 'Nothing you saved is lost. Load the page again.'}{' '}
        <Link to="/">Back to the bench</Link>
      </p>
    </main>
  );
}
