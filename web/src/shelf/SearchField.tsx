import { Search } from 'lucide-react';

interface SearchFieldProps {
  label: string;
  value: string;
  onChange(value: string): void;
}

/** Words that are looked for as they are typed. */
export function SearchField({ label, value, onChange }: SearchFieldProps) {
  return (
    <label className="mb-3 flex min-h-11 items-center gap-2 rounded-xl border-2 border-paper-line bg-white px-3 focus-within:outline-3 focus-within:outline-offset-2">
      <Search aria-hidden size={20} />
      <span className="sr-only">{label}</span>
      <input
        type="search"
        value={value}
        placeholder={label}
        onChange={(event) => onChange(event.target.value)}
        className="w-full min-w-0 bg-transparent outline-none"
      />
    </label>
  );
}
