import type { MapView } from '@doodla/core/maps';
import { countryCodes, MAP_VIEWS, nameOfCountry } from '@doodla/core/maps';
import i18next from 'i18next';
import { useMemo } from 'react';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';

/** Which map an exercise is made on: the world, a continent or a country. */
export function MapField({ view, onChange }: { view: MapView; onChange(view: MapView): void }) {
  const options = useMemo(() => {
    const { language } = i18next;
    const countries = countryCodes().map((value) => ({ value, name: nameOfCountry(value, language) }));
    countries.sort((a, b) => a.name.localeCompare(b.name, language));
    return [...MAP_VIEWS.map((value) => ({ value, name: t(`exercises.${value}`) })), ...countries];
  }, []);
  return (
    <SelectField<MapView>
      label={t('exercises.whichMap')}
      value={view}
      options={options}
      onChange={onChange}
    />
  );
}
