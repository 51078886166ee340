//! Computed points of searches: bytes under a key, of one program.

use crate::{Store, StoreError};
use sqlx::Row;

/// Points kept; those computed longest ago make room.
const MOST: i64 = 2000;

/// A point as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptPoint {
    /// What it was computed from.
    pub key: [u8; 16],
    /// What it came to.
    pub columns: Vec<u8>,
}

impl Store {
    /// Points that the program `made_by` computed, oldest first; those of others are removed.
    ///
    /// # Errors
    /// The database.
    pub async fn points(&self, made_by: &str) -> Result<Vec<KeptPoint>, StoreError> {
        if !self.is_read_only() {
            let mut change = self.change().await?;
            sqlx::query("DELETE FROM point WHERE made_by <> ?").bind(made_by).execute(&mut *change).await?;
            change.commit().await?;
        }
        let rows = sqlx::query("SELECT key, columns FROM point WHERE made_by = ? ORDER BY number")
            .bind(made_by)
            .fetch_all(&self.pool)
            .await?;
        let read = |row: &sqlx::sqlite::SqliteRow| -> Result<Option<KeptPoint>, StoreError> {
            let key: Vec<u8> = row.try_get("key")?;
            let columns = row.try_get("columns")?;
            Ok(key.try_into().ok().map(|key| KeptPoint { key, columns }))
        };
        rows.iter().filter_map(|row| read(row).transpose()).collect()
    }

    /// Keeps points.
    ///
    /// # Errors
    /// The database.
    pub async fn put_points(&self, made_by: &str, points: &[KeptPoint]) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        for point in points {
            sqlx::query("INSERT OR REPLACE INTO point (made_by, key, columns) VALUES (?, ?, ?)")
                .bind(made_by)
                .bind(point.key.as_slice())
                .bind(&point.columns)
                .execute(&mut *change)
                .await?;
        }
        sqlx::query("DELETE FROM point WHERE number <= (SELECT MAX(number) FROM point) - ?")
            .bind(MOST)
            .execute(&mut *change)
            .await?;
        change.commit().await
    }
}
