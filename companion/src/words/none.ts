/** In the place of the languages: each is a file of its own, brought before everything else (`spoken`). */
export const [en, de, pseudo] = [{}, {}, {}];
