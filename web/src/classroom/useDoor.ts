import { useCallback, useEffect, useState } from 'react';
import { lookUpCode } from '../api/joining';

/** Letters and digits of a whole code; so long nothing is typed before it is looked up, milliseconds. */
const CODE_LENGTH = 6;
const PAUSE_MS = 300;

/** What one needs to come in by a code. */
interface Door {
  code: string;
  asksPassword: boolean;
  names: readonly string[];
}

/** What a typed code leads to, as far as is known; `lookAgain` asks once more, with a password where there is one. */
export function useDoor(code: string): { door: Door | undefined; lookAgain(password?: string): void } {
  const [door, setDoor] = useState<Door>();
  const plain = code.replace(/[^a-z\d]/gi, '').toUpperCase();
  const lookAgain = useCallback(
    (password?: string) => {
      lookUpCode(plain, password || undefined).then(
        ({ wantsPassword, names }) =>
          setDoor({ code: plain, asksPassword: wantsPassword || password !== undefined, names }),
        // What is wrong with a code or password is said by going in.
        () => undefined,
      );
    },
    [plain],
  );
  useEffect(() => {
    if (plain.length !== CODE_LENGTH) return;
    const timer = setTimeout(() => lookAgain(), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [plain, lookAgain]);
  return { door: door?.code === plain ? door : undefined, lookAgain };
}
