import type { ClassState, Person } from '../../src/index.js';
import { EMPTY_SCENE, RULES_AT_FIRST } from '../../src/index.js';

/** How things stand in a class in which nothing is set up. */
export const aClassState = (set: Partial<ClassState> = {}): ClassState => ({
  sitting: 's1',
  lesson: 'l1',
  title: 'Today',
  page: 'p1',
  pensUp: false,
  ended: false,
  locked: false,
  nodding: false,
  hasPassword: false,
  group: null,
  people: [],
  asks: [],
  screen: null,
  presenters: [],
  recording: null,
  rules: RULES_AT_FIRST,
  ways: {},
  tables: [],
  copy: null,
  ideas: {},
  poll: null,
  hands: [],
  sight: '',
  scene: EMPTY_SCENE,
  devices: [],
  now: Date.now(),
  version: 1,
  ...set,
});

/** A student who is here. */
export const aPerson = (set: Partial<Person> = {}): Person => ({
  id: 'wren',
  name: 'Wren',
  colour: '#0072b2',
  dash: 0,
  here: true,
  away: false,
  pen: null,
  ...set,
});
