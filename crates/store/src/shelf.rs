//! The parts shelf: texts under a kind and a name.

use crate::change::Change;
use crate::{Store, StoreError};
use sqlx::Row;
use std::collections::HashMap;

/// A part as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptPart {
    /// Its kind.
    pub kind: String,
    /// Its name; one for one part of a kind.
    pub name: String,
    /// The part as text.
    pub content: String,
}

/// What putting parts on the shelf did.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Put {
    /// Parts that were not there.
    pub added: usize,
    /// Parts that were there and had another content.
    pub changed: usize,
    /// Parts that were there as they are.
    pub unchanged: usize,
}

impl Store {
    /// Every part, by kind and name.
    pub async fn parts(&self) -> Result<Vec<KeptPart>, StoreError> {
        let rows =
            sqlx::query("SELECT kind, name, content FROM part ORDER BY kind, name").fetch_all(&self.pool).await?;
        let read = |row: &sqlx::sqlite::SqliteRow| -> Result<KeptPart, StoreError> {
            Ok(KeptPart { kind: row.try_get("kind")?, name: row.try_get("name")?, content: row.try_get("content")? })
        };
        rows.iter().map(read).collect()
    }

    /// Puts parts on the shelf, in the place of those of their names: all of them or, when anything fails, none.
    pub async fn put_parts(&self, parts: &[KeptPart]) -> Result<Put, StoreError> {
        let mut change = self.change().await?;
        let put = self.put_in(&mut change, parts).await?;
        change.commit().await?;
        Ok(put)
    }

    /// The same within a change.
    pub(crate) async fn put_in(&self, change: &mut Change, parts: &[KeptPart]) -> Result<Put, StoreError> {
        let rows = sqlx::query("SELECT kind, name, content FROM part").fetch_all(&mut **change).await?;
        let mut known: HashMap<(String, String), String> = HashMap::with_capacity(rows.len());
        for row in &rows {
            known.insert((row.try_get("kind")?, row.try_get("name")?), row.try_get("content")?);
        }
        let mut put = Put::default();
        for part in parts {
            match known.get(&(part.kind.clone(), part.name.clone())) {
                None => put.added += 1,
                Some(content) if *content == part.content => put.unchanged += 1,
                Some(_) => put.changed += 1,
            }
            let query = sqlx::query(include_str!("sql/put_part.sql"));
            query.bind(&part.kind).bind(&part.name).bind(&part.content).execute(&mut **change).await?;
        }
        Ok(put)
    }

    /// Puts a new part on the shelf; its name must be free.
    pub async fn add_part(&self, part: &KeptPart) -> Result<(), StoreError> {
        self.writable()?;
        let query = sqlx::query("INSERT INTO part (kind, name, content) VALUES (?, ?, ?) ON CONFLICT DO NOTHING");
        let done = query.bind(&part.kind).bind(&part.name).bind(&part.content).execute(&self.pool).await?;
        if done.rows_affected() == 0 { Err(StoreError::NameTaken(part.name.clone())) } else { Ok(()) }
    }

    /// Takes a part off the shelf; builds that used it keep what they have of it.
    pub async fn remove_part(&self, kind: &str, name: &str) -> Result<(), StoreError> {
        self.writable()?;
        let done = sqlx::query("DELETE FROM part WHERE kind = ? AND name = ?").bind(kind).bind(name);
        let gone = done.execute(&self.pool).await?.rows_affected();
        if gone == 0 { Err(StoreError::NoPart(name.to_owned())) } else { Ok(()) }
    }
}
