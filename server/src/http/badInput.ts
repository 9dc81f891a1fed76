/** What is wrong with a field that somebody filled in, by its code. */
export const BAD_INPUT = {
  'your-name': 'Please give your name, up to 40 letters.',
  title: 'Please give a title of up to 200 letters.',
  tags: 'A lesson has up to 20 tags of up to 40 letters each.',
  'shelf-title': 'Please give a name of up to 100 letters.',
  'shelf-marks': 'The shelf takes up to 2,000 marks as one thing. Please choose fewer.',
  'shelf-pages': 'The shelf takes up to 60 pages as one thing. Please choose fewer.',
  limit:
    'Please give a whole number within its bounds: files 1 to 2,000 MB, 1 to 5,000 pages, 1 to 36,500 days.',
  'web-address': 'Please give the address of a web page.',
  'target-lesson': 'Please choose the lesson that the page should go to.',
  'reading-language': 'Please choose one of the languages.',
  email: 'Please give an e-mail address, like name@school.example.',
  'school-name': 'Please give the name of the school, up to 120 letters.',
  'school-slug':
    'Please give a short word for the address of the school: up to 40 small letters, digits and dashes between them.',
  'school-room': 'Please give a whole number above nothing, or leave it empty for as much as there is.',
  'school-issuer': 'Please give the address of the school’s sign-in, like https://accounts.school.example.',
  'school-client': 'Please give by what name that sign-in knows this server, and its secret, if it has one.',
  'password-missing': 'Please give your password.',
  'teacher-name': 'Please give your name, up to 80 letters.',
  'password-short': 'Please choose a password of at least 10 characters.',
} as const;

/** The code of such a sentence; `bad-input` for what only a program can send. */
export function badInputCode(sentence: string): string {
  return Object.entries(BAD_INPUT).find(([, known]) => known === sentence)?.[0] ?? 'bad-input';
}
