-- Instruments of the bench: what each is called, and how it is reached and written as JSON.
CREATE TABLE instrument (
    name TEXT PRIMARY KEY,
    content TEXT NOT NULL
) STRICT;
