-- The parts shelf. A part is kept as the text it was given as; kind and name tell it from others.
CREATE TABLE part (
    kind     TEXT NOT NULL,
    name     TEXT NOT NULL,
    content  TEXT NOT NULL,
    saved_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    PRIMARY KEY (kind, name)
) STRICT, WITHOUT ROWID;
