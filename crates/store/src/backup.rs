//! A copy of everything while the store is in use, everything taken back from one, and everything by row.

use crate::{KeptPart, Put, Store, StoreError, digest};
use sqlx::Row;
use std::path::Path;

/// One revision with everything that is kept of it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptRevision {
    /// Its number.
    pub number: i64,
    /// The build's name in it.
    pub name: String,
    /// When it was saved, UTC.
    pub saved_at: String,
    /// The document's text.
    pub document: String,
}

/// One build with everything that is kept of it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptBuild {
    /// Its number.
    pub id: i64,
    /// When it was archived, UTC.
    pub archived_at: Option<String>,
    /// Every revision, oldest first.
    pub revisions: Vec<KeptRevision>,
}

impl Store {
    /// Writes a copy of the whole database to `file`, which must not exist; saving goes on meanwhile.
    ///
    /// # Errors
    /// A file that exists or cannot be written, a full disk.
    pub async fn backup(&self, file: &Path) -> Result<(), StoreError> {
        if file.exists() {
            return Err(StoreError::Exists(file.display().to_string()));
        }
        sqlx::query("VACUUM INTO ?").bind(file.display().to_string()).execute(&self.pool).await?;
        Ok(())
    }

    /// Everything in the place of what is here, in one change: builds with their numbers and revisions, and the shelf.
    ///
    /// # Errors
    /// A store that may not be written, a full disk; then everything is as it was.
    pub async fn replace_all(&self, builds: &[KeptBuild], parts: &[KeptPart]) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        sqlx::query("DELETE FROM build").execute(&mut *change).await?;
        sqlx::query("DELETE FROM part").execute(&mut *change).await?;
        for build in builds {
            insert(&mut change, Some(build.id), build).await?;
        }
        self.put_in(&mut change, parts).await?;
        change.commit().await
    }

    /// Builds beside those that are here, as new ones with all their revisions, and parts in the place of those of their
    /// names, in one change; tells what the shelf did.
    ///
    /// # Errors
    /// A store that may not be written, a full disk; then everything is as it was.
    pub async fn add_all(&self, builds: &[KeptBuild], parts: &[KeptPart]) -> Result<Put, StoreError> {
        let mut change = self.change().await?;
        for build in builds {
            insert(&mut change, None, build).await?;
        }
        let put = self.put_in(&mut change, parts).await?;
        change.commit().await?;
        Ok(put)
    }

    /// Every build with every revision that is as it was saved.
    ///
    /// # Errors
    /// A database that cannot be read.
    pub async fn everything(&self) -> Result<Vec<KeptBuild>, StoreError> {
        let mut builds = Vec::new();
        for row in sqlx::query("SELECT id, archived_at FROM build ORDER BY id").fetch_all(&self.pool).await? {
            let id: i64 = row.try_get("id")?;
            let mut revisions = Vec::new();
            for entry in self.history(id).await?.into_iter().rev() {
                match self.revision(id, entry.revision).await {
                    Ok(found) => revisions.push(KeptRevision {
                        number: entry.revision,
                        name: entry.name,
                        saved_at: entry.saved_at,
                        document: found.document,
                    }),
                    Err(StoreError::Damaged(..)) => {}
                    Err(error) => return Err(error),
                }
            }
            builds.push(KeptBuild { id, archived_at: row.try_get("archived_at")?, revisions });
        }
        Ok(builds)
    }
}

async fn insert(change: &mut crate::change::Change, id: Option<i64>, build: &KeptBuild) -> Result<(), StoreError> {
    let made: i64 = sqlx::query_scalar("INSERT INTO build (id, archived_at) VALUES (?, ?) RETURNING id")
        .bind(id)
        .bind(&build.archived_at)
        .fetch_one(&mut **change)
        .await?;
    for revision in &build.revisions {
        sqlx::query(include_str!("sql/restore_revision.sql"))
            .bind(made)
            .bind(revision.number)
            .bind(&revision.name)
            .bind(&revision.document)
            .bind(digest(&revision.document))
            .bind(&revision.saved_at)
            .execute(&mut **change)
            .await?;
    }
    Ok(())
}
