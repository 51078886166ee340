-- What the columns of a dyno's files hold, as JSON, under their heading: mapped once and remembered.
CREATE TABLE pull_mapping (
    signature TEXT PRIMARY KEY,
    content TEXT NOT NULL
) STRICT;
