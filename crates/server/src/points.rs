//! Computed points of searches, kept in the database as they come, so that a search goes on where it was after a restart,
//! planned or not.

use sha2::{Digest, Sha256};
use std::sync::OnceLock;
use std::time::Duration;
use tokio::sync::mpsc::{UnboundedReceiver, UnboundedSender, unbounded_channel};
use upper_lobe_core::analysis::{Columns, Keeper, Key, Stages};
use upper_lobe_store::{KeptPoint, Store, StoreError};

/// Points gather for so long before they are written together.
const GATHERED: Duration = Duration::from_millis(300);

/// Stages that know every kept point, and keep every new one.
///
/// # Errors
/// The database.
pub async fn kept(store: &Store) -> Result<Stages, StoreError> {
    let stages = Stages::default();
    for point in store.points(program()).await? {
        // No columns at all: a cam that has no curve.
        let columns = Columns::from_bytes(&point.columns);
        if columns.is_some() || point.columns.is_empty() {
            stages.points.keep(Key::from_le_bytes(point.key), std::sync::Arc::new(columns));
        }
    }
    if store.is_read_only() {
        return Ok(stages);
    }
    let (sender, receiver) = unbounded_channel();
    tokio::spawn(write(store.clone(), receiver));
    Ok(Stages { keeper: Some(Box::new(Sent(sender))), ..stages })
}

/// Stands for this program to the last bit: what another one computed is not mixed with its own.
pub fn program() -> &'static str {
    static PROGRAM: OnceLock<String> = OnceLock::new();
    PROGRAM.get_or_init(|| {
        let own = std::env::current_exe().and_then(std::fs::read);
        // A program that cannot read itself shares its points with nobody.
        own.map_or_else(
            |_| format!("process {}", std::process::id()),
            |bytes| Sha256::digest(&bytes).iter().map(|byte| format!("{byte:02x}")).collect(),
        )
    })
}

/// Points on their way to the database.
#[derive(Debug)]
struct Sent(UnboundedSender<KeptPoint>);

impl Keeper for Sent {
    fn keep(&self, key: Key, point: &Option<Columns>) {
        let columns = point.as_ref().map_or_else(Vec::new, Columns::to_bytes);
        // Nobody receives any more when the server ends.
        let _ = self.0.send(KeptPoint { key: key.to_le_bytes(), columns });
    }
}

async fn write(store: Store, mut receiver: UnboundedReceiver<KeptPoint>) {
    while let Some(first) = receiver.recv().await {
        tokio::time::sleep(GATHERED).await;
        let mut points = vec![first];
        while let Ok(point) = receiver.try_recv() {
            points.push(point);
        }
        if let Err(error) = store.put_points(program(), &points).await {
            tracing::warn!("points of a search are not kept: {error}");
        }
    }
}
