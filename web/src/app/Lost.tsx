import { Link } from 'react-router';
import { Front } from '../ui/Front';

export function Lost() {
  return (
    <Front title="There is no page at this address">
      <Link to="/" className="font-bold underline">
        Go to the start page
      </Link>
    </Front>
  );
}
