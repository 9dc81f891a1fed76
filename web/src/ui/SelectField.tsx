import { useId } from 'react';

interface SelectFieldProps<T extends string | number> {
  label: string;
  value: NoInfer<T>;
  options: readonly { value: T; name: string }[];
  /** What the chosen one means. */
  hint?: string | undefined;
  onChange(value: T): void;
}

/** One of several in a list that opens, on paper. */
export function SelectField<T extends string | number>({
  label,
  value,
  options,
  hint,
  onChange,
}: SelectFieldProps<T>) {
  const id = useId();
  return (
    <div className="mb-4">
      <label htmlFor={id} className="mb-1 block font-bold">
        {label}
      </label>
      <select
        id={id}
        value={value}
        aria-describedby={hint === undefined ? undefined : `${id}-hint`}
        onChange={(event) => onChange(options[event.target.selectedIndex]!.value)}
        className="min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.name}
          </option>
        ))}
      </select>
      {hint !== undefined && (
        <p id={`${id}-hint`} className="mt-1 text-sm text-ink-soft">
          {hint}
        </p>
      )}
    </div>
  );
}
