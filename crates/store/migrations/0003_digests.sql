-- SHA-256 of each document's text, in hexadecimal, so that damage on the disk is told from what was saved. Revisions
-- from before it get theirs when the store is first opened.
ALTER TABLE revision ADD COLUMN digest TEXT;
