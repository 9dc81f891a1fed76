interface RadioListProps<T> {
  legend: string;
  value: NoInfer<T> | undefined;
  options: readonly { value: T; name: string }[];
  onChange(value: T): void;
}

/** One of many, on paper; scrolled where there is no room for all. */
export function RadioList<T extends string | null>({ legend, value, options, onChange }: RadioListProps<T>) {
  return (
    <fieldset className="mb-4 max-h-72 overflow-auto">
      <legend className="mb-1 font-bold">{legend}</legend>
      {options.map((option) => (
        <label
          key={option.value}
          className="flex min-h-11 cursor-pointer items-center gap-3 rounded-xl px-3 hover:bg-paper-dim"
        >
          <input
            type="radio"
            name={legend}
            checked={option.value === value}
            onChange={() => onChange(option.value)}
            className="size-5"
          />
          {option.name}
        </label>
      ))}
    </fieldset>
  );
}
