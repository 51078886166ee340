-- Builds and every saved revision of them. The document is kept as the text that was saved.
CREATE TABLE build (
    id         INTEGER PRIMARY KEY,
    created_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE revision (
    build_id INTEGER NOT NULL REFERENCES build (id) ON DELETE CASCADE,
    number   INTEGER NOT NULL CHECK (number >= 1),
    name     TEXT    NOT NULL,
    document TEXT    NOT NULL,
    saved_at TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    PRIMARY KEY (build_id, number)
) STRICT, WITHOUT ROWID;
