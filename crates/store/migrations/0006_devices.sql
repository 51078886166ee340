-- Devices of the shop's network that were paired, and what each changed. A token is kept as its digest only.
CREATE TABLE device (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    role TEXT NOT NULL CHECK (role IN ('everything', 'readings', 'look')),
    digest BLOB NOT NULL UNIQUE,
    paired_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now')),
    seen_at TEXT,
    revoked_at TEXT
) STRICT;

CREATE TABLE device_change (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    device_id INTEGER NOT NULL REFERENCES device (id),
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now')),
    what TEXT NOT NULL
) STRICT;

-- What waited in a device and has arrived: the same key arrives once.
CREATE TABLE arrival (
    key TEXT PRIMARY KEY,
    build_id INTEGER NOT NULL REFERENCES build (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
) STRICT;
