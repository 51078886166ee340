-- Builds and every saved revision of them. The document is kept as the text that was saved.
CREATE TABLE build (
    id          INTEGER PRIMARY KEY,
    created_at  TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    archived_at TEXT
) STRICT;

CREATE TABLE revision (
    build_id INTEGER NOT NULL REFERENCES build (id) ON DELETE CASCADE,
    number   INTEGER NOT NULL CHECK (number >= 1),
    name     TEXT    NOT NULL,
    document TEXT    NOT NULL,
    saved_at TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE UNIQUE INDEX revision_number ON revision (build_id, number);

-- The list of builds and the history of one are read without touching a document.
CREATE INDEX revision_list ON revision (build_id, number, name, saved_at);
