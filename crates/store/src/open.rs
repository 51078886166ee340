//! Opening the file: for writing where it may be written, else for reading, whatever else is forbidden.

use crate::migrations::migrator;
use crate::{Store, StoreError};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePool, SqlitePoolOptions, SqliteSynchronous};
use std::path::{Path, PathBuf};
use std::sync::Arc;
use tempfile::TempDir;

/// Connections at once: reading goes on beside one writer.
const CONNECTIONS: u32 = 4;

/// The file a store stands on.
#[derive(Debug)]
pub(crate) struct Home {
    path: PathBuf,
    /// Which file it was when it was opened; another one of that name is not it.
    identity: Option<Identity>,
    /// Holds the copy that is read in place of a file that cannot be.
    _copy: Option<TempDir>,
}

/// What tells a file from another of its name.
type Identity = (u64, u64);

impl Home {
    fn new(path: &Path, copy: Option<TempDir>) -> Arc<Self> {
        Arc::new(Self { path: path.to_owned(), identity: identity(path), _copy: copy })
    }

    /// Whether the file that was opened is still there under its name.
    pub(crate) fn is_there(&self) -> bool {
        identity(&self.path) == self.identity
    }
}

#[cfg(unix)]
fn identity(path: &Path) -> Option<Identity> {
    use std::os::unix::fs::MetadataExt;
    std::fs::metadata(path).ok().map(|file| (file.dev(), file.ino()))
}

#[cfg(not(unix))]
fn identity(path: &Path) -> Option<Identity> {
    path.exists().then_some((0, 0))
}

impl Store {
    /// Opens or makes the database at `path`. One that may not be written, or whose folder may not, is opened for
    /// reading.
    ///
    /// # Errors
    /// A file that is no database, or one of a newer version.
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        let options = writing(path);
        let opened = match connect(options, CONNECTIONS).await {
            Ok(pool) => Self { pool, read_only: false, home: Home::new(path, None) }.probed().await,
            Err(error) => Err(error),
        };
        match opened {
            Err(error) if error.may_be_readable() && path.exists() => Self::open_for_reading(path).await,
            opened => opened,
        }
    }

    /// Opens the database at `path` for reading alone. SQLite shares a journal with other programs beside the file; where
    /// that folder is closed, the file is read as it lies when no journal is left over, else through a private copy.
    ///
    /// # Errors
    /// A file that cannot be read, or is no database.
    pub async fn open_for_reading(path: &Path) -> Result<Self, StoreError> {
        let plain = SqliteConnectOptions::new().filename(path).read_only(true);
        if let Ok(pool) = readable(plain.clone()).await {
            return Ok(Self { pool, read_only: true, home: Home::new(path, None) });
        }
        if !has_journal(path)
            && let Ok(pool) = readable(plain.immutable(true)).await
        {
            return Ok(Self { pool, read_only: true, home: Home::new(path, None) });
        }
        let folder = tempfile::tempdir()?;
        let copy = folder.path().join("copy.db");
        std::fs::copy(path, &copy)?;
        if has_journal(path) {
            std::fs::copy(journal(path), journal(&copy))?;
        }
        // The copy may be brought up to date; nothing of it goes back.
        let pool = connect(writing(&copy), CONNECTIONS).await?;
        Ok(Self { pool, read_only: true, home: Home::new(path, Some(folder)) })
    }

    /// SQLite opens a file that may not be written without a word, and begins a transaction on it as one that reads: only
    /// a statement that writes tells, also one that finds nothing to write.
    pub(crate) async fn probed(self) -> Result<Self, StoreError> {
        sqlx::query("DELETE FROM part WHERE FALSE").execute(&self.pool).await?;
        Ok(self)
    }

    /// A store on its own pool, for tests that shape the connection.
    #[cfg(test)]
    pub(crate) async fn on(options: SqliteConnectOptions, connections: u32, path: &Path) -> Result<Self, StoreError> {
        Ok(Self { pool: connect(options, connections).await?, read_only: false, home: Home::new(path, None) })
    }
}

fn writing(path: &Path) -> SqliteConnectOptions {
    SqliteConnectOptions::new()
        .filename(path)
        .create_if_missing(true)
        .journal_mode(SqliteJournalMode::Wal)
        .synchronous(SqliteSynchronous::Full)
        .foreign_keys(true)
}

async fn connect(options: SqliteConnectOptions, connections: u32) -> Result<SqlitePool, StoreError> {
    let pool = SqlitePoolOptions::new().max_connections(connections).connect_with(options).await?;
    migrator().run(&pool).await?;
    Ok(pool)
}

/// A pool from which the list can be read: opening alone does not touch the file, and an older schema lacks columns.
async fn readable(options: SqliteConnectOptions) -> Result<SqlitePool, StoreError> {
    let pool = SqlitePoolOptions::new().max_connections(CONNECTIONS).connect_with(options).await?;
    sqlx::query("SELECT digest FROM revision LIMIT 1").fetch_optional(&pool).await?;
    sqlx::query("SELECT kind FROM part LIMIT 1").fetch_optional(&pool).await?;
    Ok(pool)
}

/// SQLite's journal beside the file.
fn journal(path: &Path) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push("-wal");
    PathBuf::from(name)
}

/// Whether the journal holds what the file does not.
fn has_journal(path: &Path) -> bool {
    std::fs::metadata(journal(path)).is_ok_and(|file| file.len() > 0)
}
