import type { InputHTMLAttributes, Ref } from 'react';
import { useId } from 'react';
import { classes } from './classes';

interface TextFieldProps extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  error?: string | undefined;
  ref?: Ref<HTMLInputElement>;
}

export function TextField({ label, error, className, ...rest }: TextFieldProps) {
  const id = useId();
  return (
    <div className="mb-4">
      <label htmlFor={id} className="mb-1 block font-bold">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={error !== undefined}
        aria-describedby={error && `${id}-error`}
        {...rest}
        className={classes(
          'min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3 text-lg',
          className,
        )}
      />
      {error && (
        <p id={`${id}-error`} role="alert" className="mt-1 font-bold text-alarm">
          {error}
        </p>
      )}
    </div>
  );
}
