//! Why the store refused.

use thiserror::Error;

/// SQLite's primary result codes for a full disk and a database that may not be written.
const SQLITE_READONLY: i64 = 8;
const SQLITE_FULL: i64 = 13;
const SQLITE_CANTOPEN: i64 = 14;

/// Why the store refused.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No build of this number.
    #[error("there is no build {0}")]
    NoBuild(i64),
    /// No such revision of a build.
    #[error("build {0} has no revision {1}")]
    NoRevision(i64, i64),
    /// Somebody saved in between.
    #[error("build {build} is at revision {newest}; this save began from {base}")]
    Stale {
        /// Which build.
        build: i64,
        /// The revision the save began from.
        base: i64,
        /// The newest one.
        newest: i64,
    },
    /// Only an archived build can be deleted, and only by its name.
    #[error("{0}")]
    NotDeleted(&'static str),
    /// No part of this name.
    #[error("there is no part \"{0}\" of this kind on the shelf")]
    NoPart(String),
    /// A part of this name stands there already.
    #[error("there is a part \"{0}\" of this kind already: give this one another name")]
    NameTaken(String),
    /// The disk is full.
    #[error("the disk is full: nothing was saved, nothing is lost; free some space and save again")]
    Full,
    /// The database may not be written.
    #[error("the database may only be read: nothing was saved; export what you want to keep")]
    ReadOnly,
    /// The file is gone from under its name, or another one took it.
    #[error(
        "the database file was removed or replaced while it was in use: nothing was saved; export what you want to keep, put the file back and start again"
    )]
    Removed,
    /// A document that is not the one that was saved.
    #[error(
        "revision {1} of build {0} is damaged on the disk: its text is not the one that was saved; open an earlier revision or restore a backup"
    )]
    Damaged(i64, i64),
    /// A file that would be written over.
    #[error("{0} exists already: nothing was written")]
    Exists(String),
    /// A file that could not be read or written.
    #[error("the file could not be used: {0}")]
    File(#[from] std::io::Error),
    /// The database could not be used: missing folder, damaged file.
    #[error("the database could not be used: {0}")]
    Database(sqlx::Error),
    /// The schema could not be brought up to date.
    #[error("the database could not be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        match primary_code(&error) {
            Some(SQLITE_FULL) => Self::Full,
            Some(SQLITE_READONLY) => Self::ReadOnly,
            _ => Self::Database(error),
        }
    }
}

impl StoreError {
    /// Whether opening may still succeed for reading alone.
    pub(crate) fn may_be_readable(&self) -> bool {
        match self {
            Self::ReadOnly => true,
            Self::Database(error) => primary_code(error) == Some(SQLITE_CANTOPEN),
            Self::Migration(sqlx::migrate::MigrateError::Execute(error)) => {
                primary_code(error) == Some(SQLITE_READONLY)
            }
            _ => false,
        }
    }
}

/// SQLite's result code without its extension.
fn primary_code(error: &sqlx::Error) -> Option<i64> {
    let code: i64 = error.as_database_error()?.code()?.parse().ok()?;
    Some(code & 0xff)
}
