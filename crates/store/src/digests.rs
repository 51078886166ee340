//! Whether what is read is what was saved: a digest beside every document, and a check of the whole file.

use crate::{Store, StoreError};
use sha2::{Digest, Sha256};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use std::fmt;

/// Something of the store that is not as it was saved.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize)]
pub struct Damage {
    /// The build, when it is one revision of one.
    pub build: Option<i64>,
    /// Which revision.
    pub revision: Option<i64>,
    /// What it is called.
    pub name: Option<String>,
    /// What is wrong, in a sentence.
    pub what: String,
}

impl fmt::Display for Damage {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let (Some(build), Some(revision)) = (self.build, self.revision) {
            let name = self.name.as_deref().unwrap_or("A build");
            write!(f, "{name}, revision {revision} (build {build}): ")?;
        }
        f.write_str(&self.what)
    }
}

/// SHA-256 of a document's text, in hexadecimal.
pub fn digest(document: &str) -> String {
    use std::fmt::Write;
    Sha256::digest(document.as_bytes()).iter().fold(String::with_capacity(64), |mut text, byte| {
        let _ = write!(text, "{byte:02x}");
        text
    })
}

/// The document of a row, when it is the one that was saved.
pub(crate) fn sound_document(row: &SqliteRow) -> Result<String, StoreError> {
    let document: String = row.try_get("document")?;
    let kept: Option<String> = row.try_get("digest")?;
    if kept.is_some_and(|kept| kept != digest(&document)) {
        return Err(StoreError::Damaged(row.try_get("build_id")?, row.try_get("number")?));
    }
    Ok(document)
}

impl Store {
    /// Everything that is not as it was saved: SQLite's own check of the file, then every document against its digest.
    /// What is not named can be opened. Revisions from before digests are given theirs.
    ///
    /// # Errors
    /// A database that cannot be asked at all.
    pub async fn check(&self) -> Result<Vec<Damage>, StoreError> {
        let mut found = Vec::new();
        match sqlx::query_scalar::<_, String>("PRAGMA quick_check(8)").fetch_all(&self.pool).await {
            Ok(lines) => found.extend(lines.into_iter().filter(|line| line != "ok").map(|line| of_the_file(&line))),
            Err(error) => found.push(of_the_file(&error.to_string())),
        }
        let all = sqlx::query("SELECT build_id, number, name FROM revision ORDER BY build_id, number");
        for row in all.fetch_all(&self.pool).await? {
            let (build, number): (i64, i64) = (row.try_get("build_id")?, row.try_get("number")?);
            let what = match self.sound(build, number).await {
                Ok(()) => continue,
                Err(StoreError::Damaged(..)) => "its text is not the one that was saved".to_owned(),
                Err(error) => format!("it cannot be read: {error}"),
            };
            found.push(Damage { build: Some(build), revision: Some(number), name: row.try_get("name").ok(), what });
        }
        Ok(found)
    }

    async fn sound(&self, build: i64, number: i64) -> Result<(), StoreError> {
        let query = sqlx::query(include_str!("sql/revision.sql")).bind(build).bind(number);
        let row = query.fetch_one(&self.pool).await?;
        let document = sound_document(&row)?;
        if row.try_get::<Option<String>, _>("digest")?.is_none() && !self.is_read_only() {
            let given = sqlx::query("UPDATE revision SET digest = ? WHERE build_id = ? AND number = ?");
            given.bind(digest(&document)).bind(build).bind(number).execute(&self.pool).await?;
        }
        Ok(())
    }
}

fn of_the_file(line: &str) -> Damage {
    Damage { build: None, revision: None, name: None, what: format!("the database file is damaged: {line}") }
}
