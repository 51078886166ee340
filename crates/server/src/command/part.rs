//! What a share of a search computed, as a file: points by their keys, of one program.

use crate::points::program;
use anyhow::{Context, bail};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use std::path::Path;
use std::sync::Arc;
use upper_lobe_core::analysis::{Columns, Key, Stages};

/// The file.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Part {
    /// The program that computed them, by its digest.
    program: String,
    points: Vec<Point>,
}

/// One point.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Point {
    /// What it was computed from, in hexadecimal.
    key: String,
    /// Speeds, rpm; empty for a cam that has no curve.
    speed_rpm: Vec<f64>,
    /// Columns, one after another.
    columns: Vec<f64>,
}

/// Takes over a part.
///
/// # Errors
/// A file that is none, or of another program.
pub fn take(path: &Path, stages: &Stages) -> anyhow::Result<()> {
    let text = std::fs::read(path).with_context(|| format!("reading {}", path.display()))?;
    let part: Part = serde_json::from_slice(&text).with_context(|| format!("{} is no part", path.display()))?;
    if part.program != program() {
        bail!("{} was computed by another program: run every share with the same one", path.display());
    }
    for point in part.points {
        let key = Key::from_str_radix(&point.key, 16).with_context(|| format!("{}: a key", path.display()))?;
        let columns =
            (!point.speed_rpm.is_empty()).then_some(Columns { speeds: point.speed_rpm, values: point.columns });
        stages.points.keep(key, Arc::new(columns));
    }
    Ok(())
}

/// Writes every point that is not among `known`.
///
/// # Errors
/// The disk.
pub fn write(path: &Path, stages: &Stages, known: &HashSet<Key>) -> anyhow::Result<()> {
    let mut own = stages.points.all();
    own.retain(|(key, _)| !known.contains(key));
    own.sort_by_key(|(key, _)| *key);
    let point = |(key, columns): &(Key, Arc<Option<Columns>>)| {
        let columns = columns.as_ref().clone().unwrap_or_default();
        Point { key: format!("{key:032x}"), speed_rpm: columns.speeds, columns: columns.values }
    };
    let part = Part { program: program().to_owned(), points: own.iter().map(point).collect() };
    let text = serde_json::to_vec(&part)?;
    std::fs::write(path, text).with_context(|| format!("writing {}", path.display()))
}
