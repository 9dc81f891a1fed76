import { useId, useState } from 'react';
import { TextField } from '../ui/TextField';
import { t } from '../words';

interface NameFieldProps {
  /** Names to choose from; empty where any will do. */
  names: readonly string[];
  /** The name that this device has had in the class. */
  before: string | undefined;
}

/** Who somebody is: chosen from a list where there is one, or typed. */
export function NameField({ names, before }: NameFieldProps) {
  const [typing, setTyping] = useState(false);
  const id = useId();
  if (names.length === 0 || typing)
    return (
      <TextField
        label={t('common.yourName')}
        name="name"
        defaultValue={before}
        autoComplete="nickname"
        maxLength={40}
        required
      />
    );
  return (
    <div className="mb-4">
      <label htmlFor={id} className="mb-1 block font-bold">
        {t('common.yourName')}
      </label>
      <select
        id={id}
        name="name"
        required
        defaultValue={before !== undefined && names.includes(before) ? before : ''}
        className="min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3 text-lg"
      >
        <option value="" disabled>
          {t('classroom.chooseYourName')}
        </option>
        {names.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
      <button type="button" className="mt-1 min-h-11 underline" onClick={() => setTyping(true)}>
        {t('classroom.myNameIsNotHere')}
      </button>
    </div>
  );
}
