-- What single cams of a search came to, so that a search goes on where it was when the program is started again. They can
-- be computed anew at any time; those of another program are worth nothing.
CREATE TABLE point (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    made_by TEXT NOT NULL,
    key BLOB NOT NULL UNIQUE,
    columns BLOB NOT NULL
) STRICT;
