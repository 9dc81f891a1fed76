import i18next from 'i18next';

/** What stands under a name that is put together; `otherwise` where there are no such words, as for numbers. */
const said = (name: string, otherwise: string) => i18next.t(`figures.${name}`, { defaultValue: otherwise });

/** What a figure is called. */
export const sayFigure = (figure: string): string => said(`a_${figure}`, figure);
/** What can be set of a figure. */
export const sayField = (key: string): string => said(`f_${key}`, key);
/** What something of a figure is set to. */
export const sayOption = (option: string): string => said(`o_${option}`, option);
export const saySubject = (subject: string): string => said(`s_${subject}`, subject);
