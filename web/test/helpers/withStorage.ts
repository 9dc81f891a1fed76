import { freshStorage } from './fakeStorage';

// Imported before anything that reads what is kept in the browser while it is loaded.
freshStorage();
