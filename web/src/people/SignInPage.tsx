import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Me, SignInReply } from '@doodla/core';
import { INSTALLATION } from '@doodla/core';
import { Link, useSearchParams } from 'react-router';
import { demoSignIn, signIn } from '../api/people';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { useRefreshMe } from './useRefreshMe';
import { t } from '../words';

interface Fields {
  email: string;
  password: string;
}

/** What can go wrong at the school's own sign-in, which sends back to here. */
const FAILURES = {
  'address-not-verified': t('server.address-not-verified'),
  'no-school-sign-in': t('server.no-school-sign-in'),
  'not-a-teacher': t('server.not-a-teacher'),
  'school-closed': t('server.school-closed'),
  'school-sign-in-away': t('server.school-sign-in-away'),
  'school-sign-in-failed': t('server.school-sign-in-failed'),
  'school-sign-in-late': t('server.school-sign-in-late'),
};

const isFailure = (code: string | null): code is keyof typeof FAILURES =>
  code !== null && Object.hasOwn(FAILURES, code);

interface SignInPageProps extends Pick<Me, 'demo' | 'schoolSignIn'> {
  /** The school whose page it is, where it is one's own. */
  school?: { slug: string; name: string };
}

export function SignInPage({ demo, schoolSignIn, school }: SignInPageProps) {
  const failure = useSearchParams()[0].get('problem');
  const { register, handleSubmit, formState } = useForm<Fields>();
  const [problem, setProblem] = useState<string | undefined>(
    failure === null ? undefined : FAILURES[isFailure(failure) ? failure : 'school-sign-in-failed'],
  );
  const [places, setPlaces] = useState<SignInReply['schools']>();
  const refreshMe = useRefreshMe();
  const enter = (entering: Promise<SignInReply | undefined>) =>
    entering.then(
      (reply) => (reply ? setPlaces(reply.schools) : refreshMe()),
      (error: Error) => setProblem(error.message),
    );
  const enterAt = (place: string | undefined) =>
    handleSubmit((fields) => enter(signIn(place === undefined ? fields : { ...fields, school: place })));
  const submit = enterAt(school?.slug);
  const { errors } = formState;
  return (
    <Front title={school?.name ? t('people.signInAt', { school: school.name }) : t('people.signInToTeach')}>
      {demo && (
        <Button
          look="main"
          className="mb-6 w-full"
          onClick={() => void enter(demoSignIn().then(() => undefined))}
        >
          {t('people.signInAsTheDemo')}
        </Button>
      )}
      {schoolSignIn && (
        <a
          href={`/api/sign-in/school${school ? `?at=${school.slug}` : ''}`}
          className="mb-6 flex min-h-11 w-full items-center justify-center rounded-xl bg-board px-4 text-base font-bold text-paper"
        >
          {t('people.signInWithTheSchool')}
        </a>
      )}
      <form onSubmit={(event) => void submit(event)} noValidate>
        <TextField
          label={t('people.eMailAddress')}
          type="email"
          autoComplete="username"
          error={errors.email?.message}
          {...register('email', { required: t('people.pleaseGiveYourEMail') })}
        />
        <TextField
          label={t('people.password')}
          type="password"
          autoComplete="current-password"
          error={errors.password?.message}
          {...register('password', { required: t('people.pleaseGiveYourPassword') })}
        />
        <Problem>{problem}</Problem>
        {places && <Places places={places} onChoose={(id) => void enterAt(id)()} />}
        <Button
          type="submit"
          look={demo || schoolSignIn ? 'plain' : 'main'}
          className="w-full"
          disabled={formState.isSubmitting}
        >
          {t('people.signIn')}
        </Button>
      </form>
      <p className="mt-6 border-t border-paper-line pt-4">
        {t('people.areYouAStudent')}{' '}
        <Link to="/join" className="font-bold underline">
          {t('common.joinAClass')}
        </Link>
      </p>
    </Front>
  );
}

/** Whoever teaches at several schools says at which they want to be now. */
function Places({ places, onChoose }: { places: SignInReply['schools']; onChoose(id: string): void }) {
  return (
    <div role="group" aria-label={t('people.whichSchool')} className="mb-4 flex flex-col gap-2">
      <p className="font-bold">{t('people.whichSchool')}</p>
      {places.map(({ id, name }) => (
        <Button key={id} onClick={() => onChoose(id)}>
          {id === INSTALLATION ? t('installation.title') : name || t('installation.unnamed')}
        </Button>
      ))}
    </div>
  );
}
