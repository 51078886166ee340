//! Instruments of the bench: texts under a name.

use crate::{Store, StoreError};
use sqlx::Row;

/// An instrument as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptInstrument {
    /// Its name; one for one instrument.
    pub name: String,
    /// How it is reached and written, as text.
    pub content: String,
}

impl Store {
    /// Every instrument, by name.
    ///
    /// # Errors
    /// The database.
    pub async fn instruments(&self) -> Result<Vec<KeptInstrument>, StoreError> {
        let rows = sqlx::query("SELECT name, content FROM instrument ORDER BY name").fetch_all(&self.pool).await?;
        let read = |row: &sqlx::sqlite::SqliteRow| -> Result<KeptInstrument, StoreError> {
            Ok(KeptInstrument { name: row.try_get("name")?, content: row.try_get("content")? })
        };
        rows.iter().map(read).collect()
    }

    /// Keeps an instrument, in the place of the one of its name.
    ///
    /// # Errors
    /// The database.
    pub async fn put_instrument(&self, instrument: &KeptInstrument) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        sqlx::query("INSERT OR REPLACE INTO instrument (name, content) VALUES (?, ?)")
            .bind(&instrument.name)
            .bind(&instrument.content)
            .execute(&mut *change)
            .await?;
        change.commit().await
    }

    /// Forgets an instrument; whether there was one.
    ///
    /// # Errors
    /// The database.
    pub async fn remove_instrument(&self, name: &str) -> Result<bool, StoreError> {
        let mut change = self.change().await?;
        let done = sqlx::query("DELETE FROM instrument WHERE name = ?").bind(name).execute(&mut *change).await?;
        change.commit().await?;
        Ok(done.rows_affected() > 0)
    }
}
