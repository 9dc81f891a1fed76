import type { ComponentProps } from 'react';
import { TextField } from '../ui/TextField';
import { t } from '../words';

/** What a new password has to be, for a form's `register`. */
export function newPasswordRules() {
  const message = t('people.pleaseChooseAPasswordOf');
  return { minLength: { value: 10, message }, required: message };
}

/** Where somebody chooses a password. */
export function NewPasswordField(field: Omit<ComponentProps<typeof TextField>, 'label'>) {
  return <TextField label={t('people.password')} type="password" autoComplete="new-password" {...field} />;
}
