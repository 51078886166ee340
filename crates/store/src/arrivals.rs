//! What waited in a device: it arrives once, however often it is sent.

use crate::{BuildEntry, Store, StoreError, saved};
use sqlx::Row;

impl Store {
    /// The build and revision in which what is sent under `key` has arrived, if it has.
    ///
    /// # Errors
    /// The database.
    pub async fn arrived(&self, key: &str) -> Result<Option<(i64, i64)>, StoreError> {
        let found = sqlx::query("SELECT build_id, revision FROM arrival WHERE key = ?")
            .bind(key)
            .fetch_optional(&self.pool)
            .await?;
        found.map(|row| Ok((row.try_get("build_id")?, row.try_get("revision")?))).transpose()
    }

    /// [`Store::save`], which notes in the same change that `key` has arrived with it.
    ///
    /// # Errors
    /// A stale save, a key that arrived already, the database; then everything is as it was.
    pub async fn save_arrival(
        &self,
        key: &str,
        (build, base): (i64, i64),
        name: &str,
        document: &str,
    ) -> Result<BuildEntry, StoreError> {
        let mut change = self.change().await?;
        let entry = saved(&mut change, (build, base), name, document).await?;
        sqlx::query("INSERT INTO arrival (key, build_id, revision) VALUES (?, ?, ?)")
            .bind(key)
            .bind(build)
            .bind(entry.revision)
            .execute(&mut *change)
            .await?;
        change.commit().await?;
        Ok(entry)
    }
}
