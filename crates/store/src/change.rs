//! One change of the store: all of it or nothing.

use crate::{Store, StoreError};
use sqlx::pool::PoolConnection;
use sqlx::{Sqlite, SqliteConnection};
use std::ops::{Deref, DerefMut};

/// A transaction. Left without [`Change::commit`], its connection is closed instead of reused: after a full disk SQLite
/// has rolled back by itself, and nothing may be believed about a connection that broke off in the middle.
pub(crate) struct Change {
    connection: PoolConnection<Sqlite>,
    is_done: bool,
}

impl Store {
    /// Begins a change; waits for another one to end.
    pub(crate) async fn change(&self) -> Result<Change, StoreError> {
        self.writable()?;
        let mut change = Change { connection: self.pool.acquire().await?, is_done: false };
        sqlx::query("BEGIN IMMEDIATE").execute(&mut *change).await?;
        Ok(change)
    }
}

impl Change {
    /// Makes the change last.
    pub(crate) async fn commit(mut self) -> Result<(), StoreError> {
        sqlx::query("COMMIT").execute(&mut *self).await?;
        self.is_done = true;
        Ok(())
    }
}

impl Deref for Change {
    type Target = SqliteConnection;
    fn deref(&self) -> &SqliteConnection {
        &self.connection
    }
}

impl DerefMut for Change {
    fn deref_mut(&mut self) -> &mut SqliteConnection {
        &mut self.connection
    }
}

impl Drop for Change {
    fn drop(&mut self) {
        if !self.is_done {
            self.connection.close_on_drop();
        }
    }
}
