//! Builds and their revisions in SQLite. Knows documents, not physics.
//!
//! A save names the revision it began from. It becomes the next revision only while that is still
//! the newest; otherwise it is refused as stale and nothing is written. Revisions are never changed
//! or removed.

#![warn(missing_docs)]
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used))]

use sqlx::Row;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePool, SqlitePoolOptions, SqliteSynchronous};
use std::path::Path;
use thiserror::Error;

/// Why the store refused.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No build of this number.
    #[error("there is no build {0}")]
    NoBuild(i64),
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
    /// The database could not be used: missing folder, full or read-only disk, damaged file.
    #[error("the database could not be used: {0}")]
    Database(#[from] sqlx::Error),
    /// The schema could not be brought up to date.
    #[error("the database could not be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

/// A build in the list.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize)]
pub struct BuildEntry {
    /// Number of the build.
    pub id: i64,
    /// Name in its newest revision.
    pub name: String,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, UTC.
    pub saved_at: String,
}

/// One revision with its document.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StoredBuild {
    /// The entry of the list.
    pub entry: BuildEntry,
    /// The document's text as saved.
    pub document: String,
}

/// The store.
#[derive(Debug, Clone)]
pub struct Store {
    pool: SqlitePool,
}

impl Store {
    /// Opens or makes the database at `path`.
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        let options = SqliteConnectOptions::new()
            .filename(path)
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .synchronous(SqliteSynchronous::Full)
            .foreign_keys(true);
        let pool = SqlitePoolOptions::new().max_connections(4).connect_with(options).await?;
        sqlx::migrate!().run(&pool).await?;
        Ok(Self { pool })
    }

    /// Every build, the one saved last first.
    pub async fn list(&self) -> Result<Vec<BuildEntry>, StoreError> {
        let rows = sqlx::query(include_str!("sql/list.sql")).fetch_all(&self.pool).await?;
        rows.iter().map(entry).collect()
    }

    /// The newest revision of a build.
    pub async fn newest(&self, build: i64) -> Result<StoredBuild, StoreError> {
        let row = sqlx::query(include_str!("sql/newest.sql")).bind(build).fetch_optional(&self.pool).await?;
        let row = row.ok_or(StoreError::NoBuild(build))?;
        Ok(StoredBuild { entry: entry(&row)?, document: row.try_get("document")? })
    }

    /// A new build with its first revision.
    pub async fn create(&self, name: &str, document: &str) -> Result<BuildEntry, StoreError> {
        let mut change = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        let build: i64 =
            sqlx::query_scalar("INSERT INTO build DEFAULT VALUES RETURNING id").fetch_one(&mut *change).await?;
        let row = sqlx::query(include_str!("sql/insert_revision.sql"))
            .bind(build)
            .bind(1_i64)
            .bind(name)
            .bind(document)
            .fetch_one(&mut *change)
            .await?;
        let made = entry(&row)?;
        change.commit().await?;
        Ok(made)
    }

    /// The next revision of a build, when `base` is still its newest.
    pub async fn save(&self, build: i64, base: i64, name: &str, document: &str) -> Result<BuildEntry, StoreError> {
        let mut change = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        let newest: Option<i64> = sqlx::query_scalar("SELECT max(number) FROM revision WHERE build_id = ?")
            .bind(build)
            .fetch_one(&mut *change)
            .await?;
        let newest = newest.ok_or(StoreError::NoBuild(build))?;
        if newest != base {
            return Err(StoreError::Stale { build, base, newest });
        }
        let row = sqlx::query(include_str!("sql/insert_revision.sql"))
            .bind(build)
            .bind(newest + 1)
            .bind(name)
            .bind(document)
            .fetch_one(&mut *change)
            .await?;
        let saved = entry(&row)?;
        change.commit().await?;
        Ok(saved)
    }

    /// Finishes what is under way and closes the database.
    pub async fn close(&self) {
        self.pool.close().await;
    }
}

fn entry(row: &sqlx::sqlite::SqliteRow) -> Result<BuildEntry, StoreError> {
    Ok(BuildEntry {
        id: row.try_get("build_id")?,
        name: row.try_get("name")?,
        revision: row.try_get("number")?,
        saved_at: row.try_get("saved_at")?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    async fn store() -> (tempfile::TempDir, Store) {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(&folder.path().join("test.db")).await.unwrap();
        (folder, store)
    }

    #[tokio::test]
    async fn a_saved_text_comes_back_as_saved() {
        let (folder, store) = store().await;
        let made = store.create("one", "{ \"ratio\": 1.60 }").await.unwrap();
        let saved = store.save(made.id, 1, "one, again", "{\"ratio\":1.65}").await.unwrap();
        assert_eq!((saved.revision, saved.name.as_str()), (2, "one, again"));
        store.close().await;
        let again = Store::open(&folder.path().join("test.db")).await.unwrap();
        let found = again.newest(made.id).await.unwrap();
        assert_eq!((found.document.as_str(), found.entry.revision), ("{\"ratio\":1.65}", 2));
    }

    #[tokio::test]
    async fn a_stale_save_is_refused_and_writes_nothing() {
        let (_folder, store) = store().await;
        let made = store.create("one", "first").await.unwrap();
        store.save(made.id, 1, "one", "second").await.unwrap();
        let refused = store.save(made.id, 1, "one", "lost?").await.unwrap_err();
        assert!(matches!(refused, StoreError::Stale { base: 1, newest: 2, .. }));
        assert_eq!(store.newest(made.id).await.unwrap().document, "second");
    }

    #[tokio::test]
    async fn of_many_saves_from_one_revision_exactly_one_wins() {
        let (_folder, store) = store().await;
        let made = store.create("one", "first").await.unwrap();
        let saves = (0..8).map(|i| {
            let store = store.clone();
            tokio::spawn(async move { store.save(made.id, 1, "one", &format!("text {i}")).await })
        });
        let mut won = 0;
        for save in saves.collect::<Vec<_>>() {
            won += i32::from(save.await.unwrap().is_ok());
        }
        assert_eq!(won, 1);
        assert_eq!(store.newest(made.id).await.unwrap().entry.revision, 2);
    }

    #[tokio::test]
    async fn what_is_not_there_is_said_to_be_not_there() {
        let (_folder, store) = store().await;
        assert!(matches!(store.newest(7).await, Err(StoreError::NoBuild(7))));
        assert!(matches!(store.save(7, 1, "x", "y").await, Err(StoreError::NoBuild(7))));
        assert_eq!(store.list().await.unwrap(), vec![]);
    }
}
