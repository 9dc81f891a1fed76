/**
 * Tables of the logs. `operation` is what happened; `log_page` and `mark` are what it amounts to, so that a
 * page opens without replaying. A mark that is as it was added has no body: it stands in its operation.
 */
export const LOG_TABLES = [
  `CREATE TABLE log (
    key INTEGER PRIMARY KEY,
    id TEXT NOT NULL UNIQUE,
    marks INTEGER NOT NULL DEFAULT 0
  ) STRICT`,
  `CREATE TABLE operation (
    log INTEGER NOT NULL REFERENCES log(key) ON DELETE CASCADE,
    seq INTEGER NOT NULL,
    id TEXT NOT NULL,
    author TEXT NOT NULL,
    at INTEGER NOT NULL,
    undoes TEXT,
    pages TEXT NOT NULL,
    of_pages INTEGER NOT NULL,
    changes BLOB NOT NULL,
    inverse BLOB,
    PRIMARY KEY (log, seq),
    UNIQUE (log, id)
  ) STRICT, WITHOUT ROWID`,
  `CREATE INDEX operation_by_author ON operation (log, author, seq)`,
  `CREATE TABLE log_page (
    log INTEGER NOT NULL REFERENCES log(key) ON DELETE CASCADE,
    id TEXT NOT NULL,
    body TEXT NOT NULL,
    PRIMARY KEY (log, id)
  ) STRICT, WITHOUT ROWID`,
  `CREATE TABLE mark (
    log INTEGER NOT NULL REFERENCES log(key) ON DELETE CASCADE,
    id TEXT NOT NULL,
    page TEXT NOT NULL,
    seq INTEGER NOT NULL,
    body BLOB,
    PRIMARY KEY (log, id)
  ) STRICT, WITHOUT ROWID`,
  `CREATE INDEX mark_by_page ON mark (log, page)`,
];
