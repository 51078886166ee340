//! What the columns of a dyno's files hold: texts under a heading.

use crate::{Store, StoreError};
use sqlx::Row;

impl Store {
    /// How a heading was mapped.
    ///
    /// # Errors
    /// The database.
    pub async fn pull_mapping(&self, signature: &str) -> Result<Option<String>, StoreError> {
        let query = sqlx::query("SELECT content FROM pull_mapping WHERE signature = ?").bind(signature);
        let row = query.fetch_optional(&self.pool).await?;
        Ok(row.map(|row| row.try_get("content")).transpose()?)
    }

    /// Remembers how a heading is mapped, in the place of what was remembered of it.
    ///
    /// # Errors
    /// The database.
    pub async fn put_pull_mapping(&self, signature: &str, content: &str) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        sqlx::query("INSERT OR REPLACE INTO pull_mapping (signature, content) VALUES (?, ?)")
            .bind(signature)
            .bind(content)
            .execute(&mut *change)
            .await?;
        change.commit().await
    }
}
