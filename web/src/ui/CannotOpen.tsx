import { Link } from 'react-router';
import { Front } from './Front';

/** Shown instead of a lesson or class that is not there, with the way back. */
export function CannotOpen({ what, reason }: { what: string; reason: string }) {
  return (
    <Front title={`This ${what} cannot be opened`}>
      <p className="mb-4">{reason}</p>
      <Link to="/" className="font-bold underline">
        Go to your lessons
      </Link>
    </Front>
  );
}
