//! Builds and their revisions, and the parts shelf, in SQLite. Knows documents, not physics.
//!
//! A save names the revision it began from. It becomes the next revision only while that is still
//! the newest; otherwise it is refused as stale and nothing is written. Revisions are never changed
//! or removed.

#![warn(missing_docs)]
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used))]

mod arrivals;
mod backup;
mod change;
mod devices;
mod digests;
mod error;
mod instruments;
mod mappings;
mod migrations;
mod open;
mod points;
mod shelf;

pub use backup::{KeptBuild, KeptRevision};
pub use devices::{DeviceChange, KeptDevice, PAIRED_DAYS};
pub use digests::{Damage, digest};
pub use error::StoreError;
pub use instruments::KeptInstrument;
pub use points::KeptPoint;
pub use shelf::{KeptPart, Put};

use change::Change;
use digests::sound_document;
use open::Home;
use sqlx::Row;
use sqlx::sqlite::{SqlitePool, SqliteRow};
use std::sync::Arc;

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

/// A build in the list with what its newest document says of the engine, as typed.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ListedBuild {
    /// The build.
    pub entry: BuildEntry,
    /// `use`.
    pub used_for: Option<String>,
    /// `engine.layout`.
    pub layout: Option<String>,
    /// `engine.bore`.
    pub bore: Option<String>,
    /// `engine.stroke`.
    pub stroke: Option<String>,
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
    read_only: bool,
    home: Arc<Home>,
}

impl Store {
    /// Whether nothing can be saved.
    pub const fn is_read_only(&self) -> bool {
        self.read_only
    }

    /// Every build that is archived or not, the one saved last first.
    pub async fn list(&self, archived: bool) -> Result<Vec<ListedBuild>, StoreError> {
        let rows = sqlx::query(include_str!("sql/list.sql")).bind(archived).fetch_all(&self.pool).await?;
        let listed = |row: &SqliteRow| {
            Ok(ListedBuild {
                entry: entry(row)?,
                used_for: row.try_get("used_for")?,
                layout: row.try_get("layout")?,
                bore: row.try_get("bore")?,
                stroke: row.try_get("stroke")?,
            })
        };
        rows.iter().map(listed).collect()
    }

    /// Every revision of a build, newest first.
    pub async fn history(&self, build: i64) -> Result<Vec<BuildEntry>, StoreError> {
        let rows = sqlx::query(include_str!("sql/history.sql")).bind(build).fetch_all(&self.pool).await?;
        if rows.is_empty() {
            return Err(StoreError::NoBuild(build));
        }
        rows.iter().map(entry).collect()
    }

    /// One revision of a build.
    pub async fn revision(&self, build: i64, number: i64) -> Result<StoredBuild, StoreError> {
        let query = sqlx::query(include_str!("sql/revision.sql")).bind(build).bind(number);
        let row = query.fetch_optional(&self.pool).await?.ok_or(StoreError::NoRevision(build, number))?;
        Ok(StoredBuild { entry: entry(&row)?, document: sound_document(&row)? })
    }

    /// Puts a build out of the list, with all its revisions.
    pub async fn archive(&self, build: i64) -> Result<(), StoreError> {
        self.mark(build, "UPDATE build SET archived_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?").await
    }

    /// Puts an archived build back.
    pub async fn restore(&self, build: i64) -> Result<(), StoreError> {
        self.mark(build, "UPDATE build SET archived_at = NULL WHERE id = ?").await
    }

    async fn mark(&self, build: i64, change: &'static str) -> Result<(), StoreError> {
        self.writable()?;
        let done = sqlx::query(change).bind(build).execute(&self.pool).await?;
        if done.rows_affected() == 0 { Err(StoreError::NoBuild(build)) } else { Ok(()) }
    }

    /// Deletes an archived build for good; `name` must be the one it has now.
    pub async fn delete(&self, build: i64, name: &str) -> Result<(), StoreError> {
        self.writable()?;
        let newest = self.newest(build).await?;
        if newest.entry.name != name {
            return Err(StoreError::NotDeleted("nothing was deleted: the name typed is not the build's"));
        }
        let gone = sqlx::query("DELETE FROM build WHERE id = ? AND archived_at IS NOT NULL").bind(build);
        if gone.execute(&self.pool).await?.rows_affected() == 0 {
            return Err(StoreError::NotDeleted("nothing was deleted: archive the build first"));
        }
        Ok(())
    }

    /// Whether the file that was opened is still there; what is saved into one that was removed is lost.
    pub fn is_there(&self) -> bool {
        self.home.is_there()
    }

    fn writable(&self) -> Result<(), StoreError> {
        if self.read_only {
            return Err(StoreError::ReadOnly);
        }
        if self.is_there() { Ok(()) } else { Err(StoreError::Removed) }
    }

    /// The newest revision of a build.
    pub async fn newest(&self, build: i64) -> Result<StoredBuild, StoreError> {
        let row = sqlx::query(include_str!("sql/newest.sql")).bind(build).fetch_optional(&self.pool).await?;
        let row = row.ok_or(StoreError::NoBuild(build))?;
        Ok(StoredBuild { entry: entry(&row)?, document: sound_document(&row)? })
    }

    /// A new build with its first revision.
    pub async fn create(&self, name: &str, document: &str) -> Result<BuildEntry, StoreError> {
        let mut change = self.change().await?;
        let made = begun(&mut change, name, document).await?;
        change.commit().await?;
        Ok(made)
    }

    /// New builds, each by name and document, and parts in the place of those of their names: all of it or nothing.
    ///
    /// # Errors
    /// A store that may not be written, a full disk; then everything is as it was.
    pub async fn create_all(&self, builds: &[(&str, &str)], parts: &[KeptPart]) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        for (name, document) in builds {
            begun(&mut change, name, document).await?;
        }
        self.put_in(&mut change, parts).await?;
        change.commit().await
    }

    /// The next revision of a build, when `base` is still its newest.
    pub async fn save(&self, build: i64, base: i64, name: &str, document: &str) -> Result<BuildEntry, StoreError> {
        let mut change = self.change().await?;
        let saved = saved(&mut change, (build, base), name, document).await?;
        change.commit().await?;
        Ok(saved)
    }

    /// Finishes what is under way and closes the database.
    pub async fn close(&self) {
        self.pool.close().await;
    }
}

/// A new build with its first revision.
async fn begun(change: &mut Change, name: &str, document: &str) -> Result<BuildEntry, StoreError> {
    let build = sqlx::query_scalar("INSERT INTO build DEFAULT VALUES RETURNING id").fetch_one(&mut **change).await?;
    revised(change, (build, 1), name, document).await
}

/// The next revision of a build, when the one it began from is still its newest.
async fn saved(
    change: &mut Change,
    (build, base): (i64, i64),
    name: &str,
    document: &str,
) -> Result<BuildEntry, StoreError> {
    let newest: Option<i64> = sqlx::query_scalar("SELECT max(number) FROM revision WHERE build_id = ?")
        .bind(build)
        .fetch_one(&mut **change)
        .await?;
    let newest = newest.ok_or(StoreError::NoBuild(build))?;
    if newest != base {
        return Err(StoreError::Stale { build, base, newest });
    }
    revised(change, (build, newest + 1), name, document).await
}

/// A revision of a build under a number that is free.
async fn revised(
    change: &mut Change,
    (build, number): (i64, i64),
    name: &str,
    document: &str,
) -> Result<BuildEntry, StoreError> {
    let query = sqlx::query(include_str!("sql/insert_revision.sql")).bind(build).bind(number);
    entry(&query.bind(name).bind(document).bind(digest(document)).fetch_one(&mut **change).await?)
}

fn entry(row: &SqliteRow) -> Result<BuildEntry, StoreError> {
    Ok(BuildEntry {
        id: row.try_get("build_id")?,
        name: row.try_get("name")?,
        revision: row.try_get("number")?,
        saved_at: row.try_get("saved_at")?,
    })
}

#[cfg(test)]
mod tests;
