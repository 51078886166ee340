//! Devices that were paired, and what each changed.

use crate::{Store, StoreError};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;

/// A device as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptDevice {
    /// Its number.
    pub id: i64,
    /// What the shop calls it.
    pub name: String,
    /// `everything`, `readings` or `look`.
    pub role: String,
    /// When it was paired, UTC.
    pub paired_at: String,
    /// When it last asked for anything, UTC.
    pub seen_at: Option<String>,
    /// When it was shut out, UTC.
    pub revoked_at: Option<String>,
}

/// What a device changed.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct DeviceChange {
    /// The device.
    pub device: i64,
    /// When, UTC.
    pub at: String,
    /// In words.
    pub what: String,
}

/// A pairing is good for so many days.
pub const PAIRED_DAYS: i64 = 90;

/// Changes that are shown.
const SHOWN: i64 = 500;

impl Store {
    /// Keeps a device that was paired; its number. `digest` is that of its token, which is not kept.
    ///
    /// # Errors
    /// The database.
    pub async fn add_device(&self, name: &str, role: &str, digest: &[u8]) -> Result<i64, StoreError> {
        let mut change = self.change().await?;
        let row = sqlx::query("INSERT INTO device (name, role, digest) VALUES (?, ?, ?) RETURNING id")
            .bind(name)
            .bind(role)
            .bind(digest)
            .fetch_one(&mut *change)
            .await?;
        let id = row.try_get("id")?;
        change.commit().await?;
        Ok(id)
    }

    /// The device whose token has this digest, unless it was shut out or its time is over.
    ///
    /// # Errors
    /// The database.
    pub async fn device_of(&self, digest: &[u8]) -> Result<Option<KeptDevice>, StoreError> {
        let sql = "SELECT * FROM device WHERE digest = ? AND revoked_at IS NULL AND paired_at > strftime('%Y-%m-%dT%H:%M:%SZ', 'now', ?)";
        let found =
            sqlx::query(sql).bind(digest).bind(format!("-{PAIRED_DAYS} days")).fetch_optional(&self.pool).await?;
        found.as_ref().map(device).transpose()
    }

    /// Every device, the newest first.
    ///
    /// # Errors
    /// The database.
    pub async fn devices(&self) -> Result<Vec<KeptDevice>, StoreError> {
        let rows = sqlx::query("SELECT * FROM device ORDER BY id DESC").fetch_all(&self.pool).await?;
        rows.iter().map(device).collect()
    }

    /// Shuts a device out; whether it was let in until now.
    ///
    /// # Errors
    /// The database.
    pub async fn revoke_device(&self, id: i64) -> Result<bool, StoreError> {
        let mut change = self.change().await?;
        let sql =
            "UPDATE device SET revoked_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE id = ? AND revoked_at IS NULL";
        let done = sqlx::query(sql).bind(id).execute(&mut *change).await?;
        change.commit().await?;
        Ok(done.rows_affected() > 0)
    }

    /// Notes that a device was here.
    ///
    /// # Errors
    /// The database.
    pub async fn see_device(&self, id: i64) -> Result<(), StoreError> {
        let sql = "UPDATE device SET seen_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE id = ?";
        sqlx::query(sql).bind(id).execute(&self.pool).await?;
        Ok(())
    }

    /// Notes what a device changed.
    ///
    /// # Errors
    /// The database.
    pub async fn note_device_change(&self, id: i64, what: &str) -> Result<(), StoreError> {
        let mut change = self.change().await?;
        sqlx::query("INSERT INTO device_change (device_id, what) VALUES (?, ?)")
            .bind(id)
            .bind(what)
            .execute(&mut *change)
            .await?;
        change.commit().await
    }

    /// What devices changed, the newest first.
    ///
    /// # Errors
    /// The database.
    pub async fn device_changes(&self) -> Result<Vec<DeviceChange>, StoreError> {
        let rows = sqlx::query("SELECT device_id, at, what FROM device_change ORDER BY number DESC LIMIT ?")
            .bind(SHOWN)
            .fetch_all(&self.pool)
            .await?;
        let read = |row: &SqliteRow| -> Result<DeviceChange, StoreError> {
            Ok(DeviceChange { device: row.try_get("device_id")?, at: row.try_get("at")?, what: row.try_get("what")? })
        };
        rows.iter().map(read).collect()
    }
}

fn device(row: &SqliteRow) -> Result<KeptDevice, StoreError> {
    Ok(KeptDevice {
        id: row.try_get("id")?,
        name: row.try_get("name")?,
        role: row.try_get("role")?,
        paired_at: row.try_get("paired_at")?,
        seen_at: row.try_get("seen_at")?,
        revoked_at: row.try_get("revoked_at")?,
    })
}
