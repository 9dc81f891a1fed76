import { useState } from 'react';
import type { FormEvent } from 'react';
import { useNavigate, useParams } from 'react-router';
import { joinClass } from '../api/joining';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';

/** Where students come in: a code, a name, no account. */
export default function JoinPage() {
  const { code } = useParams();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();

  const join = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    try {
      const place = await joinClass(form.get('code') as string, form.get('name') as string);
      await navigate(`/class/${place.sitting}`);
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };

  return (
    <Front title="Join your class">
      <form onSubmit={(event) => void join(event)}>
        <TextField
          label="Class code"
          name="code"
          defaultValue={code}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          required
          className="text-center text-2xl tracking-[0.3em] uppercase"
        />
        <TextField label="Your name" name="name" autoComplete="nickname" maxLength={40} required />
        {problem && (
          <p role="alert" className="mb-4 font-bold text-alarm">
            {problem}
          </p>
        )}
        <Button type="submit" look="main" className="w-full" disabled={busy}>
          Go in
        </Button>
      </form>
    </Front>
  );
}
