//! Computed points of searches, kept in the database as they come, so that a search goes on where it was after a restart,
//! planned or not.

use sha2::{Digest, Sha256};
use std::sync::{Arc, OnceLock};
use std::time::Duration;
use tokio::sync::mpsc::{UnboundedReceiver, UnboundedSender, unbounded_channel};
use upper_lobe_core::analysis::{Columns, Keeper, Key, Stages};
use upper_lobe_store::{KeptPoint, Store};

/// Points gather for so long before they are written together.
const GATHERED: Duration = Duration::from_millis(300);

/// Stages that take up every kept point beside the start, and keep every new one.
pub fn kept(store: &Store) -> Arc<Stages> {
    let (sender, receiver) = unbounded_channel();
    let keeper = (!store.is_read_only()).then(|| Box::new(Sent(sender)) as Box<dyn Keeper>);
    let stages = Arc::new(Stages { keeper, ..Stages::default() });
    tokio::spawn(tended(store.clone(), Arc::clone(&stages), receiver));
    stages
}

/// Takes up what is kept, then writes what comes.
async fn tended(store: Store, stages: Arc<Stages>, receiver: UnboundedReceiver<KeptPoint>) {
    // The program reads itself whole: nothing else waits for that.
    let _ = tokio::task::spawn_blocking(program).await;
    match store.points(program()).await {
        Ok(points) => points.iter().for_each(|point| take_up(point, &stages)),
        Err(error) => tracing::warn!("points of earlier searches are not read: {error}"),
    }
    write(store, receiver).await;
}

fn take_up(point: &KeptPoint, stages: &Stages) {
    // No columns at all: a cam that has no curve.
    let columns = Columns::from_bytes(&point.columns);
    if columns.is_some() || point.columns.is_empty() {
        stages.points.keep(Key::from_le_bytes(point.key), Arc::new(columns));
    }
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
