import type { SchoolDoor } from '@doodla/core';
import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { schoolDoor } from '../api/people';
import { Front } from '../ui/Front';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { SignInPage } from './SignInPage';

/** The sign-in page of one school among several, at an address of its own. */
export default function SchoolSignInPage() {
  const { slug = '' } = useParams();
  const [door, setDoor] = useState<SchoolDoor>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    schoolDoor(slug).then(setDoor, (error: Error) => setProblem(error.message));
  }, [slug]);
  if (door)
    return <SignInPage demo={false} schoolSignIn={door.schoolSignIn} school={{ slug, name: door.name }} />;
  return (
    <Front title={t(problem ? 'people.signInToTeach' : 'common.opening')}>
      <Problem>{problem}</Problem>
    </Front>
  );
}
