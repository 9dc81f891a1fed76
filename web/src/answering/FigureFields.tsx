import type { FigureRecipe, Field, Value } from '@doodla/core/figures';
import { FIGURES, valueIn } from '@doodla/core/figures';
import { sayField, sayOption } from '../words/figures';

interface FigureFieldsProps {
  recipe: FigureRecipe;
  /** Which fields are there; all if it does not say. */
  only?: readonly string[] | undefined;
  onChange(recipe: FigureRecipe): void;
}

/** What can be set of a figure. */
export function FigureFields({ recipe, only, onChange }: FigureFieldsProps) {
  const { fields } = FIGURES[recipe.figure];
  const shown = Object.entries(fields).filter(([key]) => only?.includes(key) ?? true);
  return shown.map(([key, field]) => (
    <FieldInput
      key={key}
      label={sayField(key)}
      field={field}
      value={recipe.values[key]!}
      onChange={(value) => onChange({ ...recipe, values: { ...recipe.values, [key]: value } })}
    />
  ));
}

interface FieldInputProps {
  label: string;
  field: Field;
  value: Value;
  onChange(value: Value): void;
}

const BOX = 'min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3 text-ink';

function FieldInput({ label, field, value, onChange }: FieldInputProps) {
  if (field.is === 'flag')
    return (
      <label className="flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="size-5"
          checked={value === true}
          onChange={({ target }) => onChange(target.checked)}
        />
        {label}
      </label>
    );
  return (
    <label className="mb-2 block">
      <span className="block font-bold">{label}</span>
      {field.is === 'choice' && (
        <select value={String(value)} onChange={({ target }) => onChange(target.value)} className={BOX}>
          {field.of.map((option) => (
            <option key={option} value={option}>
              {sayOption(option)}
            </option>
          ))}
        </select>
      )}
      {field.is === 'words' && (
        <input
          value={String(value)}
          maxLength={field.most}
          onChange={({ target }) => onChange(target.value)}
          className={BOX}
        />
      )}
      {field.is === 'number' && (
        <span className="flex items-center gap-3">
          <input
            type="range"
            aria-label={label}
            min={field.from}
            max={field.to}
            step={field.step}
            value={Number(value)}
            onChange={({ target }) => onChange(target.valueAsNumber)}
            className="h-11 min-w-24 grow accent-board"
          />
          <input
            type="number"
            aria-label={label}
            min={field.from}
            max={field.to}
            step={field.step}
            value={Number(value)}
            onChange={({ target }) => onChange(valueIn(field, target.valueAsNumber))}
            className="min-h-11 w-24 rounded-xl border-2 border-paper-line bg-white px-2 text-ink"
          />
        </span>
      )}
    </label>
  );
}
